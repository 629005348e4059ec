/** The instructor's screens, fetched as one piece: whoever only reads a lesson does not carry them. */
export { Account } from "./account/Account";
export { Forgotten } from "./account/Forgotten";
export { NewPassword } from "./account/NewPassword";
export { Bin } from "./bin/Bin";
export { DrillBook } from "./book/DrillBook";
export { Models } from "./book/Models";
export { StudentCard } from "./card/StudentCard";
export { Inbox } from "./inbox/Inbox";
export { LessonDesk } from "./lesson/LessonDesk";
export { Lessons } from "./lesson/Lessons";
export { NotHere } from "./shell/NotHere";
export { Shell } from "./shell/Shell";
export { SignIn } from "./shell/SignIn";
export { Students } from "./students/Students";
export { StudioHour } from "./studio/StudioHour";
