// Holds a folder's lock as a process of its own, until it is killed.
const sqlite3 = require('sqlite3');
const database = new sqlite3.Database(process.argv[2]);
database.exec('BEGIN EXCLUSIVE', (error) => process.stdout.write(error ? `failed ${error.message}` : 'held'));
setInterval(() => undefined, 1000);
