import Link from "next/link";

export default function NotFound() {
  return (
    <main style={{ padding: 48 }}>
      <h1>There is nothing at this address</h1>
      <p>
        Choose a show from <Link href="/">the list of shows</Link>.
      </p>
    </main>
  );
}
