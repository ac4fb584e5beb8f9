"use client";

/** Where timecode comes from besides this machine's own: placeholder of the port. */
export function TimecodeSource() {
  return null;
}
