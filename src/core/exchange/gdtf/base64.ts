/** Bytes as text and back (RFC 4648, section 4). */
const SIGNS = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
const PLACE = new Map([...SIGNS].map((sign, k) => [sign.charCodeAt(0), k]));

export function base64Of(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let at = 0; at < bytes.length; at += 3) {
    const [a, b, c] = [bytes[at]!, bytes[at + 1] ?? 0, bytes[at + 2] ?? 0];
    const left = bytes.length - at;
    parts.push(
      SIGNS[a >> 2]! +
        SIGNS[((a & 3) << 4) | (b >> 4)]! +
        (left > 1 ? SIGNS[((b & 15) << 2) | (c >> 6)]! : "=") +
        (left > 2 ? SIGNS[c & 63]! : "="),
    );
  }
  return parts.join("");
}

export function bytesOf(text: string): Uint8Array {
  const clean = text.replace(/={1,2}$/, "");
  const made = new Uint8Array(Math.floor((clean.length * 3) / 4));
  let [bits, count, at] = [0, 0, 0];
  for (let k = 0; k < clean.length; k++) {
    bits = (bits << 6) | (PLACE.get(clean.charCodeAt(k)) ?? 0);
    count += 6;
    if (count < 8) continue;
    count -= 8;
    made[at++] = (bits >> count) & 255;
    bits &= (1 << count) - 1;
  }
  return made;
}
