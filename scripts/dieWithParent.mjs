// Loaded into the servers that a script starts: when that script is gone, however it ended, they go too and free their ports.
process.on('disconnect', () => process.exit(0));
// Listening for that must not itself keep a server alive that was told to stop.
process.channel?.unref();
