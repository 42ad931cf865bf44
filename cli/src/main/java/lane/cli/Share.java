package lane.cli;

import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** A share as a number, such as 0.2, or in per cent, such as 20%. */
final class Share implements ITypeConverter<Double> {
    @Override
    public Double convert(String said) {
        String s = said.strip();
        boolean percent = s.endsWith("%");
        try {
            double v =
                    Double.parseDouble(percent ? s.substring(0, s.length() - 1).strip() : s);
            return percent ? v / 100 : v;
        } catch (NumberFormatException e) {
            throw new TypeConversionException("'" + said + "' is no share; write one such as 0.2 or 20%");
        }
    }
}
