/** Catches beams in the room that go elsewhere than the geometry of the show says. */
import fc from "fast-check";
import { newDesk, runLine } from "@/core/desk/desk";
import { beamOf as directionOf } from "@/core/patch/room";
import { compileRig } from "@/core/play/stage/rig";
import type { Lit } from "../lit";
import { beam, beamOf } from "./beam";
import { roomLampsOf } from "./lamps";
import { runs } from "@tests/setup/runs";

const none = () => 0;

test("a beam goes where pan and tilt send it, however the lamp hangs, and ends on the floor", () => {
  const angle = fc.double({ min: -180, max: 180, noNaN: true });
  fc.assert(
    fc.property(angle, angle, angle, angle, fc.double({ min: -130, max: 130, noNaN: true }), (x, y, z, pan, tilt) => {
      const desk = newDesk();
      for (const line of ["patch 1 petrel-spot as 1", "1 place 1 2 5"]) runLine(desk, line);
      const { show } = desk.world;
      const [id] = Object.keys(show.fixtures) as [string];
      const hung = { ...show, fixtures: { [id]: { ...show.fixtures[id]!, turn: { x, y, z } } } };
      const rig = compileRig(hung);
      const lamp = roomLampsOf(hung, rig.index)[0]!;
      const lit: Lit = { value: Float64Array.from(rig.defaults), fn: new Uint8Array(rig.size) };
      lit.value[lamp.pan] = pan;
      lit.value[lamp.tilt] = tilt;
      beamOf(lamp, lit, 40, 0, none);
      const wanted = directionOf(hung.fixtures[id]!, pan, tilt);
      [beam.dx, beam.dy, beam.dz].forEach((v, k) => expect(v).toBeCloseTo(wanted[k]!, 9));
      // What is up across the beam stands square to it.
      expect(beam.dx * beam.ux + beam.dy * beam.uy + beam.dz * beam.uz).toBeCloseTo(0, 9);
      if (wanted[2] < -0.3) expect(5 + beam.dz * beam.length).toBeCloseTo(0, 6);
    }),
    { numRuns: runs(60) },
  );
});

test("zoom, iris, gobos, prism and strobe are what the values say", () => {
  const desk = newDesk();
  for (const line of ["patch 1 petrel-spot as 1", "1 zoom at 40", "1 iris at 50", "1 gobo at 3", "1 prism at 1"])
    runLine(desk, line);
  const { rig, stage } = desk.player;
  const lamp = roomLampsOf(desk.world.show, rig.index)[0]!;
  const names: string[] = [];
  beamOf(lamp, { value: stage.value, fn: stage.fn }, 40, 0, (name) => names.push(name));
  expect(beam.spread).toBeCloseTo(Math.tan((20 * Math.PI) / 180) * 0.5, 9);
  expect([names, beam.gobo, beam.facets, beam.off]).toEqual([["net"], 1, 3, false]);
  runLine(desk, "1 strobe at 2");
  beamOf(lamp, { value: stage.value, fn: stage.fn }, 40, 0.3, none);
  expect(beam.off).toBe(true);
});
