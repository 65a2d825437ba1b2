// A session as coaches write one: what is read from walls is English.
/** A session as coaches write one, to be tried. */
export const EXAMPLE = `Thurs top field, 40 mins
warm up 2 rds: 10 squats, 10 arm circles, 5 inchworms
A) 3x10 goblet squats 24/16
rest 90s
B) emom 9
12 pushups
15 kb swings 24kg
30s plank
cool: 30s each calf, quads, chest`
