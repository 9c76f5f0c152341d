#pragma once
/// What is said of chains, in the window's language and units.

#include "app/view/context.h"
#include "core/study/feed_choices.h"
#include "core/study/reflection.h"
#include "core/study/shield.h"

#include <QString>
#include <QStringList>

namespace vetchling::app::feed {

/// "0.45 dB", "over 60 dB".
QString decibelWords(double loss, int decimals = 2);
/// With its sign: "+1.3 dB", "−2.9 dB".
QString signedWords(double decibels);
/// "12 W", "0.4 W".
QString wattWords(double watts);
/// "460 V", "1.2 kV".
QString voltWords(double volts);
/// "1.9 kΩ", "50 Ω".
QString ohmWords(double ohms);
/// Fitted to their size, for the drawing of the chain: "1.0k − j40 Ω".
QString shortImpedance(Complex z);
/// "transformer", "coax", "open-wire line".
QString partName(const ChainPart& part);
/// The figure that tells it from others of its kind: "49 : 1", "18 m", "in the radio".
QString partFigure(const ChainPart& part, units::System system);
/// "assumed".
QString basisWords(Basis basis);
/// "40 m", "40 and 10 m", "40, 15 and 10 m".
QString bandList(const Design& design, const std::vector<Id>& bands);
/// What the gain is held against: "a quarter-wave vertical".
QString againstWords(const Against& against, const Document& document, const SolveService& solver);
/// The sentence of the page.
QString lossSentence(const study::FeedReport& report, const QString& against);
/// "40 m: 2.9 dB behind, of which 2.1 in the coax."
QString rowSentence(const study::FeedRow& row, const study::FeedReport& report);
/// What a better line would gain, or what the losses mean; and whether guessed figures decide anything.
QString adviceSentence(const study::FeedReport& report, const std::vector<study::ChoiceRow>& lines, units::System system);
/// Bands on which more is lost than the limit; empty where there are none.
QString unfitSentence(const study::FeedReport& report, const Design& design);
QString guessSentence(const study::FeedReport& report, const Design& design);
/// "5.5 cm less on each side", with its result "SWR 1.4, 0.6 dB, 87 W".
std::pair<QString, QString> cureWords(const study::ReflectionCure& cure, const Document& document);
/// "40 m: 31 W instead of 92 W": what a cure does to the other wanted bands; empty where it does no harm.
QString elsewhereWords(const study::ReflectionCure& cure, const Document& document);
/// "Its leakage of 0.30 µH takes 10 m from 1.6 to 2.4; 0.2 µH would keep all under 2."
QString leakageSentence(const std::optional<study::LeakageEffect>& effect, const Design& design);
/// What one choke at the best place would do to current and gain; empty before that is known.
QString bestChokeSentence(const study::ShieldAnswer& answer, const Design& design);
/// On which bands what flows beyond the choke makes another antenna of it, which no other page counts; empty where it does not.
QString shieldEffectSentence(const study::ShieldAnswer& answer, const Design& design);
/// "1 : 4", "no transformer"; "in the radio"; the line's name and length.
QString choiceName(const study::ChoiceRow& row, int choice, units::System system);

} // namespace vetchling::app::feed
