package org.mellowclass.app.sounds;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;

import org.junit.jupiter.api.Test;
import org.mellowclass.core.cleanup.Recipe;
import org.mellowclass.core.cleanup.StepKind;
import org.mellowclass.core.sound.Sides;
import org.mellowclass.core.sound.Span;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.CorrectClock;
import org.mellowclass.core.treatment.MendPlaces;
import org.mellowclass.core.treatment.PlayReturned;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Treatment;
import org.mellowclass.core.treatment.Trick;

class TreatmentCodecTest {

    private static final Treatment ALL = Treatment.of(new PlayReturned(7), new ChooseSides(Sides.LEFT), new RedrawTops(), new MendPlaces(List.of(new Span(10, 20))),
            new CleanUp(Recipe.of(StepKind.NOISE_DOWN.with(12), new Recipe.Step(StepKind.HUM_OUT, List.of(), false, 50)), new Span(0, 24_000)), new Trick(Trick.Kind.PITCH, -3, new Span(100, 48_100)), new CorrectClock(89.5));

    @Test
    void every_step_is_written_as_it_always_was() {
        assertThat(TreatmentCodec.write(ALL)).isEqualTo("{\"steps\":[{\"type\":\"returned\",\"returnedId\":7},{\"type\":\"sides\",\"sides\":\"LEFT\"},{\"type\":\"tops\"},"
                + "{\"type\":\"places\",\"places\":[{\"startFrame\":10,\"endFrame\":20}]},"
                + "{\"type\":\"cleanup\",\"recipe\":{\"steps\":[{\"kind\":\"NOISE_DOWN\",\"values\":[12.0],\"on\":true,\"blendPercent\":100},"
                + "{\"kind\":\"HUM_OUT\",\"values\":[],\"on\":false,\"blendPercent\":50}]},\"room\":{\"startFrame\":0,\"endFrame\":24000}},"
                + "{\"type\":\"trick\",\"kind\":\"PITCH\",\"amount\":-3.0,\"of\":{\"startFrame\":100,\"endFrame\":48100}},"
                + "{\"type\":\"clock\",\"longerPpm\":89.5}]}");
        assertThat(TreatmentCodec.read(TreatmentCodec.write(ALL))).isEqualTo(ALL);
    }

    @Test
    void every_kind_of_cleanup_step_comes_back_and_makes_a_sound_of_its_own() {
        List<Treatment> each = Arrays.stream(StepKind.values()).map(kind -> Treatment.of(new CleanUp(Recipe.of(kind.usual()), null))).toList();
        assertThat(each).allSatisfy(treatment -> assertThat(TreatmentCodec.read(TreatmentCodec.write(treatment))).isEqualTo(treatment));
        assertThat(each.stream().map(TreatmentCodec::key).distinct()).hasSameSizeAs(each);
    }

    @Test
    void a_recipe_that_does_nothing_is_no_treatment() {
        assertThat(Treatment.of(new CleanUp(Recipe.of(), null))).isEqualTo(Treatment.NONE);
        assertThat(TreatmentCodec.key(Treatment.of(new CleanUp(Recipe.of(), null)))).isEqualTo(TreatmentCodec.AS_IT_IS);
    }
}
