export { demoSystem } from '@periwinkle/core/test/demo';
