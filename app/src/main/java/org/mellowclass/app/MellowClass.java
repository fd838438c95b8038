package org.mellowclass.app;

import java.util.TimeZone;

import org.mybatis.spring.annotation.MapperScan;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;
import org.springframework.scheduling.annotation.EnableScheduling;

import org.apache.ibatis.annotations.Mapper;

/** The web application. */
@SpringBootApplication
@ConfigurationPropertiesScan
@EnableScheduling
@MapperScan(annotationClass = Mapper.class)
public class MellowClass {

    public static void main(String[] args) {
        // every Instant is stored in UTC, whatever the machine's zone
        TimeZone.setDefault(TimeZone.getTimeZone("UTC"));
        SpringApplication.run(MellowClass.class, args);
    }
}
