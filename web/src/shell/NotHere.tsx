import { Link } from "react-router";

export function NotHere() {
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
