import type { Root } from 'mdast';
import { htmlPage } from '@zugluft/publish/html';
import { markdown } from '@zugluft/publish/markdown';

/** A guide's tree as Markdown (CommonMark). */
export const guideMarkdown = (tree: Root): string => markdown(tree);

/** A guide's tree as one HTML page that needs nothing beside it and prints. */
export const guideHtml = (tree: Root): string => htmlPage(tree);
