;; The two loops of ground.ts that run for each pixel of the plan, four pixels at a time.
;; Channels are mixed as whole parts: (a * (256 - part) + b * part) >> 8, as ground.ts does.
(module
  (import "ground" "memory" (memory 1))

  ;; Two words of four channels each, mixed by parts 0..256 of 16 bits.
  (func $mix (param $a v128) (param $b v128) (param $part v128) (result v128)
    (i16x8.shr_u
      (i16x8.add
        (i16x8.shl (local.get $a) (i32.const 8))
        (i16x8.mul (i16x8.sub (local.get $b) (local.get $a)) (local.get $part)))
      (i32.const 8)))

  ;; What lies between two rows of light. $to, $a, $b: addresses. $count: words, $part: 0..256 of the second row.
  (func (export "mixRow") (param $to i32) (param $a i32) (param $b i32) (param $count i32) (param $part i32)
    (local $at i32) (local $end i32) (local $by v128) (local $from v128) (local $into v128)
    (local.set $by (i16x8.splat (local.get $part)))
    (local.set $end (i32.shl (local.get $count) (i32.const 2)))
    (loop $next
      (if (i32.lt_u (local.get $at) (local.get $end))
        (then
          (local.set $from (v128.load (i32.add (local.get $a) (local.get $at))))
          (local.set $into (v128.load (i32.add (local.get $b) (local.get $at))))
          (v128.store (i32.add (local.get $to) (local.get $at))
            (i8x16.narrow_i16x8_u
              (call $mix
                (i16x8.extend_low_i8x16_u (local.get $from))
                (i16x8.extend_low_i8x16_u (local.get $into))
                (local.get $by))
              (call $mix
                (i16x8.extend_high_i8x16_u (local.get $from))
                (i16x8.extend_high_i8x16_u (local.get $into))
                (local.get $by))))
          (local.set $at (i32.add (local.get $at) (i32.const 16)))
          (br $next)))))

  ;; Adds a row of light to what is under it. $to, $under: addresses of the first pixel. $count: pixels.
  ;; $near: for each pixel where its light lies in $row, in bytes. $part: for each four times how far it is on the way
  ;; to the next, 16 bits. Up to three pixels more are written.
  (func (export "layRow")
    (param $to i32) (param $under i32) (param $count i32) (param $near i32) (param $part i32) (param $row i32)
    (local $at i32) (local $end i32) (local $from v128) (local $into v128)
    (local $p0 i32) (local $p1 i32) (local $p2 i32) (local $p3 i32)
    (local.set $end (i32.shl (local.get $count) (i32.const 2)))
    (loop $next
      (if (i32.lt_u (local.get $at) (local.get $end))
        (then
          (local.set $p0 (i32.add (local.get $row) (i32.load offset=0 (i32.add (local.get $near) (local.get $at)))))
          (local.set $p1 (i32.add (local.get $row) (i32.load offset=4 (i32.add (local.get $near) (local.get $at)))))
          (local.set $p2 (i32.add (local.get $row) (i32.load offset=8 (i32.add (local.get $near) (local.get $at)))))
          (local.set $p3 (i32.add (local.get $row) (i32.load offset=12 (i32.add (local.get $near) (local.get $at)))))
          (local.set $from (v128.load32_zero (local.get $p0)))
          (local.set $from (v128.load32_lane 1 (local.get $p1) (local.get $from)))
          (local.set $from (v128.load32_lane 2 (local.get $p2) (local.get $from)))
          (local.set $from (v128.load32_lane 3 (local.get $p3) (local.get $from)))
          (local.set $into (v128.load32_zero offset=4 (local.get $p0)))
          (local.set $into (v128.load32_lane offset=4 1 (local.get $p1) (local.get $into)))
          (local.set $into (v128.load32_lane offset=4 2 (local.get $p2) (local.get $into)))
          (local.set $into (v128.load32_lane offset=4 3 (local.get $p3) (local.get $into)))
          (v128.store (i32.add (local.get $to) (local.get $at))
            (i8x16.add_sat_u
              (v128.load (i32.add (local.get $under) (local.get $at)))
              (i8x16.narrow_i16x8_u
                (call $mix
                  (i16x8.extend_low_i8x16_u (local.get $from))
                  (i16x8.extend_low_i8x16_u (local.get $into))
                  (v128.load offset=0 (i32.add (local.get $part) (i32.shl (local.get $at) (i32.const 1)))))
                (call $mix
                  (i16x8.extend_high_i8x16_u (local.get $from))
                  (i16x8.extend_high_i8x16_u (local.get $into))
                  (v128.load offset=16 (i32.add (local.get $part) (i32.shl (local.get $at) (i32.const 1))))))))
          (local.set $at (i32.add (local.get $at) (i32.const 16)))
          (br $next))))))
