import { defineConfig } from '@playwright/test';
import tests from './playwright.config';

/** Takes the pictures of docs/screenshots anew: `npm run pictures`, with the checkout built. */
export default defineConfig({ ...tests, testMatch: '**/*.pictures.ts', workers: 1, retries: 0, reporter: [['list']] });
