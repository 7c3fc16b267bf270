declare module 'subset-font' {
  /** A font with the letters of the text alone. */
  export default function subsetFont(
    font: Buffer,
    text: string,
    options: { readonly targetFormat: 'woff2'; readonly noHinting?: boolean; readonly keepFeatures?: readonly string[] },
  ): Promise<Buffer>;
}
