package org.mellowclass.app.cleanup;

import org.mellowclass.core.cleanup.RecipeText;

/**
 * A cleanup recipe that a teacher keeps for a class.
 *
 * @param advice when to use it
 * @param text   the recipe, see {@link RecipeText}
 */
public record ClassRecipe(long id, long classId, String name, String advice, String text) {
}
