/** Half of a pair of UTF-16, as some keyboards leave it of an emoji, and the zero byte: no database keeps either. */
const UNREADABLE = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]|\0/g;

/** Whether a text can be kept by every device and database. */
export const isReadable = (text: string): boolean => text.search(UNREADABLE) < 0;

/** A text with what cannot be kept left out. */
export const readable = (text: string): string => text.replace(UNREADABLE, '');
