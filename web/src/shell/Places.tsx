import { Menu, MenuButton, MenuItem, MenuProvider } from "@ariakit/react";
import { NavLink, useLocation } from "react-router";
import { useMedia } from "../parts/useMedia";

export const PLACES = [
  ["/inbox", "Inbox"],
  ["/students", "Students"],
  ["/shelf", "Shelf"],
  ["/lessons", "Lessons"],
  ["/book", "Book"],
  ["/bin", "Bin"],
] as const;

/** Ways to the screens: side by side where there is room, else unfolded from one button. */
export function Places({ account }: { account: string }) {
  const narrow = useMedia("(max-width: 47.9rem)");
  const here = useLocation().pathname;
  if (narrow) return <Folded here={here} account={account} />;
  return (
    <nav aria-label="Main" className="flex h-full min-w-0 gap-1 text-sm">
      {PLACES.map(([to, label]) => (
        <NavLink
          key={to}
          to={to}
          className={({ isActive }) =>
            `flex items-center border-b-2 px-2 sm:px-3 ${isActive ? "border-brass font-semibold" : "border-transparent opacity-85 hover:opacity-100"}`
          }
        >
          {label}
        </NavLink>
      ))}
    </nav>
  );
}

function Folded({ here, account }: { here: string; account: string }) {
  const now = PLACES.find(([to]) => here.startsWith(to))?.[1] ?? "Go to";
  return (
    <nav aria-label="Main" className="text-sm">
      <MenuProvider>
        <MenuButton className="btn btn-ghost btn-sm px-2 font-normal">
          {now} <span aria-hidden>▾</span>
        </MenuButton>
        <Menu className="plate z-40 grid min-w-44 bg-base-100 p-1 text-base-content shadow-lg" gutter={6}>
          {[...PLACES, ["/account", account] as const].map(([to, label]) => (
            <MenuItem
              key={to}
              render={<NavLink to={to} />}
              className="rounded-sm px-3 py-2.5 data-active-item:bg-base-300 aria-[current]:font-semibold"
            >
              {label}
            </MenuItem>
          ))}
        </Menu>
      </MenuProvider>
    </nav>
  );
}
