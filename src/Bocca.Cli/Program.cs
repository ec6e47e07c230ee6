return Bocca.Cli.CommandLine.Run(args);
