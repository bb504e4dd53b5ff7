/** Where the decoded copy of a file lies whose kind no usual reader reads: beside it. It can be made again at any time. */
export const decodedCopy = (file: string): string => `${file}${ENDING}`;

export const isDecodedCopy = (file: string): boolean => file.endsWith(ENDING);

const ENDING = '.decoded';
