import { Link } from "react-router";
import { usePageTitle } from "../parts/usePageTitle";

export function NotHere() {
  usePageTitle("Nothing is kept at this address");
  return (
    <div className="mx-auto max-w-lg p-8">
      <h1 className="text-2xl font-semibold">Nothing is kept at this address</h1>
      <p className="my-3">It may have been removed, or the address was cut short.</p>
      <Link to="/inbox" className="link">
        Go to the inbox
      </Link>
    </div>
  );
}
