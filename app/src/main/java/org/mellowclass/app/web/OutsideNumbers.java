package org.mellowclass.app.web;

import java.io.IOException;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.deser.std.StdDeserializer;
import com.fasterxml.jackson.databind.module.SimpleModule;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.convert.converter.Converter;
import org.springframework.format.FormatterRegistry;
import org.springframework.http.converter.json.MappingJackson2HttpMessageConverter;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * No request brings a whole number in that scripts could not hold exactly (ECMA-262, Number.MAX_SAFE_INTEGER), so that no sum or difference of
 * a few of them, nor a frame at another rate, goes over the end of a {@code long}; and no JSON that is deep, or has more parts than any page sends, is read to
 * its end.
 */
@Configuration
class OutsideNumbers implements WebMvcConfigurer {

    static final long MOST = (1L << 53) - 1;
    /** A brief of a hundred clips has a tenth. */
    private static final int MOST_TOKENS = 20_000;
    private static final int DEEPEST = 32;

    /** As people and scripts write it. */
    static long checked(long number) {
        if (number > MOST || number < -MOST) {
            throw new IllegalArgumentException("a number beyond what anything here can have");
        }
        return number;
    }

    @Override
    public void addFormatters(FormatterRegistry registry) {
        registry.addConverter(new Converter<String, Long>() {
            @Override
            public Long convert(String text) {
                return text.isBlank() ? null : Long.valueOf(checked(Long.parseLong(text.strip())));
            }
        });
    }

    private static final class InJson extends StdDeserializer<Long> {

        private final Long nothing;

        /** @param nothing what it is where it is not told */
        private InJson(Long nothing) {
            super(Long.class);
            this.nothing = nothing;
        }

        @Override
        public Long getNullValue(DeserializationContext context) {
            return nothing;
        }

        @Override
        public Long deserialize(JsonParser parser, DeserializationContext context) throws IOException {
            long number = parser.getLongValue();
            return number > MOST || number < -MOST ? (Long) context.handleWeirdNumberValue(Long.class, number, "beyond what anything here can have") : (Long) number;
        }
    }

    /** Reads requests; what is stored is read without these limits. */
    @Bean
    MappingJackson2HttpMessageConverter requestsAsJson(ObjectMapper mapper) {
        JsonFactory bounded = JsonFactory.builder().streamReadConstraints(StreamReadConstraints.builder().maxNestingDepth(DEEPEST).maxTokenCount(MOST_TOKENS)
                .maxStringLength(BodyLimits.MOST_BYTES).maxDocumentLength(BodyLimits.MOST_BYTES).build()).build();
        ObjectMapper reading = mapper.copyWith(bounded);
        reading.registerModule(new SimpleModule().addDeserializer(Long.class, new InJson(null)).addDeserializer(Long.TYPE, new InJson(0L)));
        return new MappingJackson2HttpMessageConverter(reading);
    }
}
