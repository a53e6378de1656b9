declare module 'piexifjs' {
  const piexif: {
    TAGS: { Exif: Record<number, { name: string; type: string }> };
    ImageIFD: Record<'Make' | 'Model' | 'Orientation' | 'DateTime', number>;
    ExifIFD: Record<'DateTimeOriginal' | 'DateTimeDigitized' | 'FocalLengthIn35mmFilm', number>;
    GPSIFD: Record<
      'GPSLatitudeRef' | 'GPSLatitude' | 'GPSLongitudeRef' | 'GPSLongitude' | 'GPSDateStamp' | 'GPSTimeStamp',
      number
    >;
    GPSHelper: { degToDmsRational(degrees: number): [number, number][] };
    dump(blocks: Record<string, Record<number, unknown>>): string;
  };
  export default piexif;
}
