package org.mellowclass.app.bench;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import org.mellowclass.core.timeline.RoomSource;
import org.mellowclass.core.timeline.Source;
import org.mellowclass.core.timeline.TakeSource;
import org.springframework.boot.jackson.JsonMixin;

/** Sources are written with their names, in what is stored and in what pages get. */
@JsonMixin(Source.class)
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
@JsonSubTypes({@JsonSubTypes.Type(value = TakeSource.class, name = "take"),
    @JsonSubTypes.Type(value = RoomSource.class, name = "room")})
interface NamedSource {
}
