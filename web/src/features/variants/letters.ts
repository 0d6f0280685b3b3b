/** States are told apart by letter, in the order in which they were chosen. */
export const LETTERS = ["A", "B", "C", "D"];
