package org.mellowclass.app.web;

import java.util.List;

import org.springframework.boot.autoconfigure.web.WebProperties;
import org.springframework.http.server.PathContainer;
import org.springframework.stereotype.Component;
import org.springframework.web.util.pattern.PathPattern;
import org.springframework.web.util.pattern.PathPatternParser;
import org.thymeleaf.context.IExpressionContext;
import org.thymeleaf.context.IWebContext;
import org.thymeleaf.linkbuilder.StandardLinkBuilder;
import org.thymeleaf.spring6.SpringTemplateEngine;

/**
 * Gives a version to the addresses of what ships with the application, and to no others: for each of them Spring would look for a file of
 * that name, which takes most of the time of a page with many.
 */
@Component
class VersionedLinks extends StandardLinkBuilder {

    private final List<PathPattern> versioned;

    VersionedLinks(WebProperties properties, SpringTemplateEngine engine) {
        PathPatternParser parser = PathPatternParser.defaultInstance;
        versioned = List.of(properties.getResources().getChain().getStrategy().getFixed().getPaths()).stream().map(parser::parse).toList();
        engine.setLinkBuilder(this);
    }

    @Override
    protected String processLink(IExpressionContext context, String link) {
        if (context instanceof IWebContext page) {
            String within = link.substring(Math.min(link.length(), page.getExchange().getRequest().getApplicationPath().length()));
            PathContainer path = PathContainer.parsePath(within);
            if (versioned.stream().anyMatch(pattern -> pattern.matches(path))) {
                return super.processLink(context, link);
            }
        }
        return link;
    }
}
