#include "app/view/words.h"

#include <QCoreApplication>
#include <QLocale>

#include <cmath>

namespace vetchling::app {

QString tr(const char* words) { return QCoreApplication::translate("vetchling::app", words); }

QString coreWords(const std::string& english) { return english.empty() ? QString() : QCoreApplication::translate("core", english.c_str()); }

QString coreWords(const Text& text, units::System system)
{
    QString out = coreWords(text.pattern);
    for (std::size_t i = text.values.size(); i-- > 0;) {
        const auto* words = std::get_if<std::string>(&text.values[i]);
        const auto* measure = std::get_if<Measure>(&text.values[i]);
        out.replace(QStringLiteral("%") + QString::number(i + 1),
                    words ? coreWords(*words) : valueWords(measure->value, measure->quantity, system));
    }
    return out;
}

QString lengthWords(double metres, units::System system, int decimals)
{
    return QString::fromStdString(units::formatLength(metres, system, decimals));
}
QString heightWords(double metres, units::System system) { return lengthWords(metres, system, std::round(metres) == metres ? 0 : 1); }
QString farWords(double metres, units::System system)
{
    return system == units::System::Metric ? tr("%1 m").arg(numberWords(metres, 0)) : tr("%1 ft").arg(numberWords(metres / 0.3048, 0));
}
QString supportWords(SupportKind kind)
{
    switch (kind) {
    case SupportKind::Tower: return QCoreApplication::translate("vetchling::app", "tower");
    case SupportKind::Tree: return QCoreApplication::translate("vetchling::app", "tree");
    case SupportKind::Wall: return QCoreApplication::translate("vetchling::app", "wall");
    case SupportKind::Roof: return QCoreApplication::translate("vetchling::app", "roof");
    case SupportKind::Pole: break;
    }
    return QCoreApplication::translate("vetchling::app", "pole");
}
QString smallWords(double metres, units::System system) { return QString::fromStdString(units::formatSmall(metres, system)); }
QString valueWords(double value, units::Quantity quantity, units::System system)
{
    return QString::fromStdString(units::format(value, quantity, system));
}
QString decibelWords(double decibels) { return numberWords(decibels, 1); }

QString soilWords(const Soil& soil)
{
    if (soil.conductivity >= 1.0)
        return tr("%1: ε %2, %3 S/m").arg(coreWords(soil.name)).arg(soil.relativePermittivity, 0, 'g', 3).arg(soil.conductivity, 0, 'g', 3);
    return tr("%1: ε %2, %3 mS/m")
        .arg(coreWords(soil.name))
        .arg(soil.relativePermittivity, 0, 'g', 3)
        .arg(1e3 * soil.conductivity, 0, 'g', 3);
}

QString numberWords(double value, int decimals)
{
    const QString size = QString::number(std::abs(value), 'f', decimals);
    return value < 0.0 && size.toDouble() != 0.0 ? QStringLiteral("−%1").arg(size) : size;
}

QString megahertz(double hertz, int decimals) { return QString::number(hertz / 1e6, 'f', decimals); }

QString frequencyWords(double hertz) { return QString::fromStdString(units::formatFrequency(hertz)); }

QString inSentence(QString title)
{
    const bool aLetter = title.size() < 2 || !title[1].isLower(); // "V of two long wires"
    if (!aLetter && (QLocale().language() == QLocale::English || QLocale().language() == QLocale::C))
        title[0] = title[0].toLower();
    return title;
}

} // namespace vetchling::app
