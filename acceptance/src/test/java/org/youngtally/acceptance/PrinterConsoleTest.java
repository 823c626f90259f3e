package org.youngtally.acceptance;

import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Whatever goes wrong with a printer, the label desk settles it in the console, from the job to the reprint. */
class PrinterConsoleTest {
    private static Service service;

    private Browser browser;

    @BeforeAll
    static void start() throws Exception {
        service = Service.demo();
    }

    @AfterAll
    static void stop() throws Exception {
        service.close();
    }

    @BeforeEach
    void signIn() throws Exception {
        browser = new Browser(service.address());
        browser.signIn("ruben", Service.demoPassword("ruben"));
    }

    @AfterEach
    void close() throws Exception {
        browser.close();
        service.put("/api/v1/simulated-printer", "{\"trouble\":\"none\"}");
    }

    private void fault(String fault, String now) {
        browser.open("/labels/simulated-printer");
        browser.choose("From now on", fault);
        if (fault.equals("It jams") || fault.equals("It vanishes")) browser.type("Pages before", "7");
        browser.press("Set");
        browser.sees("Now: " + now);
    }

    private void preview() {
        browser.open("/labels");
        browser.choose("Layout", "Label of a pipe, 62 × 29 mm");
        browser.choose("Numbers of", "Pipe label");
        browser.choose("Unit", "Pipe foundry");
        browser.type("Quantity", "12");
        browser.type("Stop", "Gamba");
        browser.sees("12 labels on 12 pages");
    }

    private void print(String printer) {
        preview();
        browser.choose("Printer", printer);
        browser.press("Print 12 labels");
    }

    private void reprint(String places) {
        browser.choose("What", "Reprint");
        browser.type("Places", places);
        browser.press("Reprint");
        browser.sees("labels wait.");
        browser.press("Send to the printer");
    }

    @Test
    void aJam() {
        fault("It jams", "It jams");
        print("Label printer (simulated), idle");
        browser.sees("stopped: media jam.");
        browser.sees("7 printed");
        browser.press("Stop printing");
        browser.sees("5 unconfirmed");
        reprint("8-12");
        browser.sees("12 printed");
        browser.sees("5 spoiled");
    }

    @Test
    void aPrinterThatVanishes() {
        fault("It vanishes", "It vanishes");
        print("Label printer (simulated), idle");
        browser.sees("12 unconfirmed");
        String job = browser.path();
        fault("None", "None");
        browser.open(job);
        browser.choose("What", "Confirm");
        browser.type("Places", "1-7");
        browser.press("Confirm");
        browser.sees("7 printed");
        reprint("8-12");
        browser.sees("12 printed");
    }

    @Test
    void aPrinterThatRefuses() {
        preview();
        browser.press("Print 12 labels");
        browser.sees("12 labels wait.");
        String job = browser.path();
        fault("It refuses jobs", "It refuses jobs");
        browser.open(job);
        browser.choose("Printer", "Label printer (simulated), accepts no jobs");
        browser.press("Send to the printer");
        browser.sees("does not accept jobs now.");
        browser.sees("12 waiting");
        fault("None", "None");
        browser.open(job);
        browser.choose("Printer", "Label printer (simulated), idle");
        browser.press("Send to the printer");
        browser.sees("12 printed");
    }
}
