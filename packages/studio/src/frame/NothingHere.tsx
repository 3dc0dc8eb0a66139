import { Link } from "react-router";

export function NothingHere() {
  return (
    <main className="mx-auto mt-24 max-w-lg px-5">
      <h1 className="font-serif text-2xl font-semibold">Page not found</h1>
      <p className="mt-3">
        <Link to="/forms" className="underline">
          Go to the forms
        </Link>
      </p>
    </main>
  );
}
