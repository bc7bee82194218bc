import { ensureBuild, ensureModules } from './lib/install.mjs';
import { checkNode } from './lib/say.mjs';

checkNode();
ensureModules();
ensureBuild();
