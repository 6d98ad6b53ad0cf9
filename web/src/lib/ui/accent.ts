/** The colour of a head that has none of its own, as a field for colours takes it: the token `night`. */
export const NIGHT = '#1c2743';
