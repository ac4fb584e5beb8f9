import { redirect } from "next/navigation";

export default async function Page({ params }: { params: Promise<{ show: string }> }) {
  redirect(`/show/${encodeURIComponent((await params).show)}/build`);
}
