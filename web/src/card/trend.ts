import type { Schemas } from "../api/client";

export type Trend = Schemas["TrendOut"];
export type Trends = Schemas["TrendsOut"];
type TrendSwing = Schemas["TrendSwing"];

/** A swing's value where it is drawn; `number` is its place in the trend's own columns. */
export interface Dot {
  x: number;
  value: number;
  u95: number;
  provisional: boolean;
  number: number;
}

/** Swings of one day with their mean, where there is more than one that was looked at. */
export interface DayOfSwings {
  day: string;
  from: number;
  to: number;
  mean: number;
  swings: number;
}

export interface LaidTrend {
  dots: Dot[];
  days: DayOfSwings[];
}

export interface Span {
  from: number; // milliseconds
  to: number;
  months: { time: number; words: string }[]; // the beginnings of months, as many as there is room for
}

const MOST_MONTHS = 6;
const MONTH = new Intl.DateTimeFormat(undefined, { month: "short" });
const WIDEST_APART = 5; // pixels between two swings of one day
const WIDEST_DAY = 18;

/** The time that trends are drawn over: from the first swing, or what else happened before it, to the last. */
export function spanOf({ swings, lessons }: Pick<Trends, "swings" | "lessons">): Span {
  const times = [...swings.map(({ received_at }) => received_at), ...lessons.map(({ on }) => on)].map(
    Date.parse,
  );
  if (!times.length) return { from: 0, to: 1, months: [] };
  const from = Math.min(...times);
  const to = Math.max(...times);
  const room = Math.max((to - from) * 0.03, 43_200_000);
  return { from: from - room, to: to + room, months: monthsOf(from - room, to + room) };
}

function monthsOf(from: number, to: number): Span["months"] {
  const found: Span["months"] = [];
  const begun = new Date(from);
  for (let month = begun.getMonth() + 1; ; month += 1) {
    const first = new Date(begun.getFullYear(), month, 1);
    if (first.getTime() > to) break;
    found.push({ time: first.getTime(), words: MONTH.format(first) });
  }
  const each = Math.ceil(found.length / MOST_MONTHS);
  return found.filter((_, i) => i % each === 0);
}

/** Where a time lies on a line of that width. */
export function placeOf(time: number, { from, to }: Pick<Span, "from" | "to">, width: number): number {
  return ((time - from) / (to - from)) * width;
}

/** When a swing was made, and its day as its reader's calendar has it. */
export interface Timed {
  time: number;
  day: string;
}

/** The times of all swings, reckoned once: they are drawn in every chart. */
export const timed = (swings: TrendSwing[]): Timed[] =>
  swings.map(({ received_at }) => {
    const at = new Date(received_at);
    return { time: at.getTime(), day: `${at.getFullYear()}-${at.getMonth()}-${at.getDate()}` };
  });

/** Every swing at its time, those of one day side by side about it. */
export function laid(trend: Trend, swings: Timed[], span: Span, width: number): LaidTrend {
  const byDay = new Map<string, number[]>();
  trend.swing.forEach((swing, number) => {
    const day = swings[swing]?.day ?? "";
    const numbers = byDay.get(day);
    if (numbers) numbers.push(number);
    else byDay.set(day, [number]);
  });
  const dots: Dot[] = [];
  const days: DayOfSwings[] = [];
  for (const [day, numbers] of byDay) {
    const times = numbers.map((number) => swings[trend.swing[number] ?? 0]?.time ?? 0);
    const middle = placeOf(times.reduce((sum, time) => sum + time, 0) / times.length, span, width);
    const apart = numbers.length > 1 ? Math.min(WIDEST_APART, WIDEST_DAY / (numbers.length - 1)) : 0;
    const first = middle - (apart * (numbers.length - 1)) / 2;
    numbers.forEach((number, i) => {
      dots.push({
        x: first + i * apart,
        value: trend.value[number] ?? 0,
        u95: trend.u95[number] ?? 0,
        provisional: trend.provisional[number] ?? false,
        number,
      });
    });
    const looked = numbers.filter((number) => !trend.provisional[number]);
    if (looked.length < 2) continue;
    const mean = looked.reduce((sum, number) => sum + (trend.value[number] ?? 0), 0) / looked.length;
    const reach = (apart * (numbers.length - 1)) / 2 + WIDEST_APART;
    days.push({ day, from: middle - reach, to: middle + reach, mean, swings: looked.length });
  }
  return { dots, days };
}

/** The lowest and the highest end of all whiskers; nothing for no dots. */
export function reach(dots: Dot[]): number[] {
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (const { value, u95 } of dots) {
    low = Math.min(low, value - u95);
    high = Math.max(high, value + u95);
  }
  return dots.length ? [low, high] : [];
}

/** All whiskers of some dots as one path, and all dots as points of another: hundreds draw as fast as one. */
export function paths(dots: Dot[], y: (value: number) => number): { whiskers: string; points: string } {
  let whiskers = "";
  let points = "";
  for (const { x, value, u95 } of dots) {
    const at = fine(x);
    whiskers += `M${at} ${fine(y(value - u95))}V${fine(y(value + u95))}`;
    points += `M${at} ${fine(y(value))}h0`;
  }
  return { whiskers, points };
}

/** Rounded to a tenth of a pixel; toFixed takes five times as long. */
const fine = (value: number) => Math.round(value * 10) / 10;

/** Trends with a goal first, in the goals' order; then those with a band; then the others as they are. */
export function inOrder(trends: Trend[], goals: { reading: string; at: string }[]): Trend[] {
  const rank = (trend: Trend) => {
    const goal = goals.findIndex(({ reading, at }) => reading === trend.reading && at === trend.at);
    if (goal >= 0) return goal;
    return goals.length + (trend.low !== null || trend.high !== null ? 0 : 1);
  };
  return [...trends].sort((a, b) => rank(a) - rank(b));
}
