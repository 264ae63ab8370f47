/** On top of a hook-up’s dearer end while nobody has seen the house. Our assumption. */
export const unseenFraction = 0.1
