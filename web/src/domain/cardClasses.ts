/** Speed classes of cards, slow to fast. */
export const CLASSES = ["C10", "U1", "U3", "V6", "V10", "V30", "V60", "V90"] as const;
