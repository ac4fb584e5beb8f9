import { notFound } from "next/navigation";
import { isPlace } from "@/ui/show/addresses/placeIds";
import { Place } from "@/ui/shell/Place";

export default async function Page({ params }: { params: Promise<{ place: string }> }) {
  if (!isPlace((await params).place)) notFound();
  return <Place />;
}
