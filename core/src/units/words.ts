/** A name within a sentence: an abbreviation or a letter later in it stays as the sheet spells it. */
export const lowerFirst = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1)
