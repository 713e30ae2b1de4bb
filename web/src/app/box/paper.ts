import type { PaperLines } from '../shared/paper';

export const paper: PaperLines = {};
