export default { displayName: 'web', rootDir: '.', testMatch: ['<rootDir>/none'] };
