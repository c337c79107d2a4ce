import { cache } from 'react';
import { loadShop } from './shop-now';

/** The shop as it is, read once for all that makes up a page. */
export const shopOfPage = cache(loadShop);
