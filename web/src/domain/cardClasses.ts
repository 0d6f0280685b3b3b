const CLASSES = ["C10", "U1", "U3", "V6", "V10", "V30", "V60", "V90"] as const;

/** Speed classes of cards to choose from, slow to fast. */
export const CLASS_CHOICES = CLASSES.map((value) => ({ value, name: value }));
