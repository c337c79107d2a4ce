import { demoShop } from './demo-shop';

const made = await demoShop();
process.stdout.write(made ? 'The demo shop is filled.\n' : 'The demo shop is there already.\n');
process.exit(0);
