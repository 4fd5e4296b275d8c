// Loaded into the servers that a script starts: when that script is gone, however it ended, they go too and free their ports.
process.on('disconnect', () => process.exit(0));
