"use client";

/** What is drawn failed as a whole: the show itself runs on outside of it. */
export default function Failed({ error, reset }: { error: Error; reset(): void }) {
  return (
    <main style={{ padding: 48 }} role="alert">
      <p>This page could not be shown: {error.message}. A show that was running runs on.</p>
      <button type="button" onClick={reset}>
        Show it again
      </button>
    </main>
  );
}
