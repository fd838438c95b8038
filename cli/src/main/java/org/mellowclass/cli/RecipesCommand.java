package org.mellowclass.cli;

import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Stream;

import com.fasterxml.jackson.databind.ObjectMapper;
import org.mellowclass.core.cleanup.RecipeText;
import org.mellowclass.core.cleanup.StarterRecipe;
import org.mellowclass.core.cleanup.StepKind;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** {@code bin/sound recipes}: the recipes that ship, and every step with its numbers, as one JSON object. */
@Command(name = "recipes", mixinStandardHelpOptions = true, description =
    "Prints {recipes: [{name, steps}], steps: [{name, parameters: [{name, unit, least, most, usual}]}]}.")
final class RecipesCommand implements Callable<Integer> {

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        Map<String, Object> values = new LinkedHashMap<>();
        values.put("recipes", Stream.of(StarterRecipe.values()).map(recipe ->
                ordered("name", recipe.slug(), "steps", recipe.recipe().steps().stream().map(RecipeText::of).toList())).toList());
        values.put("steps", Stream.of(StepKind.values()).map(kind -> ordered("name", kind.slug(), "parameters", kind.parameters())).toList());
        spec.commandLine().getOut().println(new ObjectMapper().writeValueAsString(values));
        return 0;
    }

    private static Map<String, Object> ordered(String name, Object value, String otherName, Object otherValue) {
        Map<String, Object> values = new LinkedHashMap<>();
        values.put(name, value);
        values.put(otherName, otherValue);
        return values;
    }
}
