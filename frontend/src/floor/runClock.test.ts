import { expect, test } from 'vitest'

import { RunClock } from './runClock'

/** A device whose clocks go as they are told; milliseconds. */
function device(): { wall: number; steady: number; run: (ms: number) => void; sleep: (ms: number) => void } {
  return {
    wall: 1_700_000_000_000,
    steady: 5_000,
    run(ms) {
      this.wall += ms
      this.steady += ms
    },
    sleep(ms) {
      this.wall += ms
    },
  }
}
const clockOf = (of: ReturnType<typeof device>): RunClock =>
  new RunClock({ wall: () => of.wall, steady: () => of.steady })

test('counts on from what the server said, halfway between question and answer', () => {
  const phone = device()
  const clock = clockOf(phone)
  const asked = phone.wall
  phone.run(400)
  clock.measure(1_800_000_000, asked)
  phone.run(800)
  // Halfway was 200 ms after the question; 1000 ms have gone by since.
  expect(clock.now()).toBeCloseTo(1_800_000_001, 6)
})

test('an answer that came late does not spoil what a quick one said', () => {
  const phone = device()
  const clock = clockOf(phone)
  let asked = phone.wall
  phone.run(20)
  clock.measure(1_800_000_000, asked)
  const before = clock.now()
  asked = phone.wall
  // Two seconds on the way, nearly all of them back.
  phone.run(2_000)
  clock.measure(before + 0.01, asked)
  expect(clock.now() - before).toBeCloseTo(2, 3)
})

test('a better answer that moves the time is told of', () => {
  const phone = device()
  const clock = clockOf(phone)
  const asked = phone.wall
  phone.run(900)
  clock.measure(1_800_000_000, asked)
  const before = clock.moved
  clock.measure(clock.now() + 0.3, phone.wall)
  expect(clock.moved).toBe(before + 1)
  clock.measure(clock.now() + 0.001, phone.wall)
  expect(clock.moved).toBe(before + 1)
})

test('after ten minutes a slower answer counts too', () => {
  const phone = device()
  const clock = clockOf(phone)
  clock.measure(1_800_000_000, phone.wall)
  phone.run(601_000)
  const asked = phone.wall
  phone.run(100)
  clock.measure(1_800_000_700, asked)
  expect(clock.now()).toBeCloseTo(1_800_000_700.05, 3)
})

test('an hour of ticks does not add up to an error', () => {
  const phone = device()
  const clock = clockOf(phone)
  const first = clock.now()
  for (let tick = 0; tick < 36_000; tick++) {
    phone.run(100)
    clock.now()
  }
  expect(clock.now() - first).toBeCloseTo(3_600, 3)
})

test('after a sleep the wall clock says how long it was', () => {
  const phone = device()
  const clock = clockOf(phone)
  const before = clock.now()
  phone.run(2_000)
  phone.sleep(600_000)
  expect(clock.now() - before).toBeCloseTo(602, 3)
  phone.run(1_000)
  expect(clock.now() - before).toBeCloseTo(603, 3)
})

test('it never runs backwards, also where the wall clock is set back', () => {
  const phone = device()
  const clock = clockOf(phone)
  const before = clock.now()
  phone.wall -= 60_000
  expect(clock.now()).toBeGreaterThanOrEqual(before)
})

test('a wall clock that is a little off from the steady one is not believed', () => {
  const phone = device()
  const clock = clockOf(phone)
  const before = clock.now()
  phone.run(10_000)
  phone.wall += 400
  expect(clock.now() - before).toBeCloseTo(10, 3)
})

test('a device whose clock is wrong by an hour is set right at once, back as well as forth', () => {
  const phone = device()
  const clock = clockOf(phone)
  const wrong = clock.now()
  expect(clock.measured).toBe(false)
  clock.measure(wrong - 3_600, phone.wall)
  phone.run(1_000)
  expect(clock.now()).toBeCloseTo(wrong - 3_599, 3)
  expect(clock.measured).toBe(true)
})

test('what was measured last holds after a reload without a network', () => {
  const phone = device()
  let kept: number | null = null
  const source = {
    wall: () => phone.wall,
    steady: () => phone.steady,
    kept: () => kept,
    keep: (offset: number) => (kept = offset),
  }
  const before = new RunClock(source)
  const wrong = before.now()
  before.measure(wrong + 600, phone.wall)
  expect(new RunClock(source).now()).toBeCloseTo(wrong + 600, 3)
})

test('a server whose clock is set does not move a run that goes on, and counts again after it', () => {
  const phone = device()
  const clock = clockOf(phone)
  clock.measure(1_800_000_000, phone.wall)
  const ends = clock.holdFor()
  phone.run(10_000)
  clock.measure(1_800_003_610, phone.wall)
  expect(clock.now()).toBeCloseTo(1_800_000_010, 3)
  ends()
  clock.measure(1_800_003_610, phone.wall)
  expect(clock.now()).toBeCloseTo(1_800_003_610, 3)
})

test('a phone whose own clock is set during a run takes the time from the server', () => {
  const phone = device()
  const clock = clockOf(phone)
  clock.measure(1_800_000_000, phone.wall)
  clock.holdFor()
  phone.run(10_000)
  phone.sleep(3_600_000)
  clock.measure(1_800_000_010, phone.wall)
  expect(clock.now()).toBeCloseTo(1_800_000_010, 3)
})
