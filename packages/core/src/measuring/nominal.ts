/**
 * By so much, mm, a nominal size may lie over the end of a table's row and still be meant for it: 18 mm written in inches
 * to four places, 0.7087 in, is 18.001 mm. Rows of sizes end at whole millimetres.
 */
export const INCH_HAIR_MM = 0.0015;
