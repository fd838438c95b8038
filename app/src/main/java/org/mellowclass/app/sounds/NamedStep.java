package org.mellowclass.app.sounds;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.mellowclass.core.treatment.ChooseSides;
import org.mellowclass.core.treatment.CleanUp;
import org.mellowclass.core.treatment.CorrectClock;
import org.mellowclass.core.treatment.MendPlaces;
import org.mellowclass.core.treatment.PlayReturned;
import org.mellowclass.core.treatment.RedrawTops;
import org.mellowclass.core.treatment.Step;
import org.mellowclass.core.treatment.Trick;
import org.springframework.boot.jackson.JsonMixin;

/** Steps of treatments are written with their names, in what is stored and in what pages get. */
@JsonMixin(Step.class)
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({@JsonSubTypes.Type(value = ChooseSides.class, name = "sides"),
    @JsonSubTypes.Type(value = RedrawTops.class, name = "tops"),
    @JsonSubTypes.Type(value = MendPlaces.class, name = "places"),
    @JsonSubTypes.Type(value = PlayReturned.class, name = "returned"),
    @JsonSubTypes.Type(value = CleanUp.class, name = "cleanup"),
    @JsonSubTypes.Type(value = Trick.class, name = "trick"),
    @JsonSubTypes.Type(value = CorrectClock.class, name = "clock")})
public interface NamedStep {
}
