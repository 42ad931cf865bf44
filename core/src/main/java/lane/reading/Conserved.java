package lane.reading;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Predicate;
import lane.measure.Flow;
import lane.measure.Force;
import lane.measure.Given;
import lane.measure.Heat;
import lane.measure.Integral;
import lane.measure.Measure;
import lane.measure.Moment;

/** What a balance is of, and which terms one of that needs (docs/METHODS.md, Balances). */
public enum Conserved {
    /** It is not said; nothing is expected. */
    UNSAID,
    MASS,
    /** Along a direction. */
    MOMENTUM,
    /** About an axis. */
    ANGULAR_MOMENTUM,
    ENERGY,
    /** Anything else that is carried, diffused and made. */
    SCALAR;

    /** How a term stands. */
    public enum State {
        THERE,
        MISSING,
        /** It is not there, and is wanted only where the run has such a thing. */
        IF_ANY
    }

    /**
     * A term that such a balance has.
     *
     * @param how what it may be taken as
     */
    public record Need(String what, State state, String how) {}

    public String word() {
        return this == UNSAID ? "not said" : name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    /** All that one has, with how each stands among terms. */
    public List<Need> needs(List<BalanceOf.Term> terms) {
        List<Need> out = new ArrayList<>();
        switch (this) {
            case UNSAID -> {}
            case MASS -> {
                need(out, terms, "mass carried", true, Conserved::carried, "the flow of density times velocity");
                need(out, terms, "mass made", false, Conserved::inside, "the integral of a source over a region");
            }
            case MOMENTUM -> {
                need(
                        out,
                        terms,
                        "momentum carried",
                        true,
                        Conserved::carried,
                        "the flow of density times a component of the velocity times the velocity");
                need(
                        out,
                        terms,
                        "pressure and friction",
                        true,
                        m -> m instanceof Force,
                        "forces on all that bounds it");
                need(
                        out,
                        terms,
                        "body force",
                        false,
                        Conserved::inside,
                        "the integral of weight or buoyancy over a region");
            }
            case ANGULAR_MOMENTUM -> {
                need(
                        out,
                        terms,
                        "angular momentum carried",
                        true,
                        Conserved::carried,
                        "the flow of angular momentum about the axis");
                need(
                        out,
                        terms,
                        "moment of pressure and friction",
                        true,
                        m -> m instanceof Moment,
                        "moments on all that bounds it");
                need(
                        out,
                        terms,
                        "moment of body forces",
                        false,
                        Conserved::inside,
                        "the integral of the moment of weight or buoyancy over a region");
            }
            case ENERGY -> {
                need(
                        out,
                        terms,
                        "enthalpy carried",
                        true,
                        Conserved::carried,
                        "the flow of density times heat capacity times temperature times velocity");
                need(
                        out,
                        terms,
                        "heat conducted",
                        true,
                        m -> m instanceof Heat,
                        "the heat conducted, or the flow of a stored flux, through all that bounds it");
                need(
                        out,
                        terms,
                        "heat made",
                        false,
                        m -> m instanceof Integral || m instanceof Given,
                        "the integral of a source over a region, or a typed value with its source");
            }
            case SCALAR -> {
                need(out, terms, "carried", true, Conserved::carried, "the flow of it times the velocity");
                need(
                        out,
                        terms,
                        "diffused",
                        false,
                        m -> false,
                        "the flow of its diffusive flux, through all that bounds it");
                need(out, terms, "made", false, Conserved::inside, "the integral of a source over a region");
            }
        }
        if (this != UNSAID) {
            need(
                    out,
                    terms,
                    "stored",
                    false,
                    m -> false,
                    "where it changes in time, the integral of (now - then) / duration over a region");
        }
        return List.copyOf(out);
    }

    private static boolean carried(Measure m) {
        return m instanceof Flow || m instanceof Given;
    }

    private static boolean inside(Measure m) {
        return m instanceof Integral || m instanceof Given;
    }

    private static void need(
            List<Need> out,
            List<BalanceOf.Term> terms,
            String what,
            boolean always,
            Predicate<Measure> is,
            String how) {
        boolean named = terms.stream().anyMatch(t -> t.name().equalsIgnoreCase(what));
        boolean there = named || terms.stream().anyMatch(t -> is.test(t.measure()));
        out.add(new Need(what, there ? State.THERE : always ? State.MISSING : State.IF_ANY, how));
    }
}
