package org.mellowclass.cli;


import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The core from the command line. */
@Command(name = "bin/sound", description = "Measures sound files, checks and cleans them, and lines them up.", mixinStandardHelpOptions = true,
        subcommands = {MeasureCommand.class, LineUpCommand.class, CheckCommand.class, CleanCommand.class, RecipesCommand.class})
public final class Sound {

    private Sound() {
    }

    public static void main(String[] arguments) {
        System.exit(commandLine().execute(arguments));
    }

    static CommandLine commandLine() {
        return new CommandLine(new Sound());
    }
}
