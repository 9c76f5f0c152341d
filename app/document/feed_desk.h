#pragma once
/// The chains of the antenna on show: what was solved for them in the background, everything that follows from it at once when a part
/// changes, and the edits of a chain.

#include "app/document/asked.h"
#include "core/line/line_types.h"
#include "core/study/feed_choices.h"
#include "core/study/reflection.h"
#include "core/study/shield.h"

#include <QObject>

#include <array>

namespace vetchling::app {

class AntennaModels;

class FeedDesk : public QObject {
    Q_OBJECT
public:
    FeedDesk(Document& document, const AntennaModels& models, SolveService& solver, const std::vector<LineType>& lineTypes,
             QObject* parent = nullptr);

    /// Solves what the present antenna needs, unless that is known.
    void wantBasis();
    /// Of the chain as it is; null before the first answer for this antenna.
    [[nodiscard]] std::shared_ptr<const study::FeedReport> report() const { return m_report; }
    /// The report is of the antenna as it is, and not of how it was before the last change.
    [[nodiscard]] bool fresh() const;
    [[nodiscard]] bool busy() const { return m_basis.busy(); }
    [[nodiscard]] const Faults& faults() const { return m_basis.faults(); }
    /// What it was held against; the vertical where the wanted one is not there.
    [[nodiscard]] Against against() const;

    /// dB of a line alone, matched, on the selected band; nothing before a report or for another part.
    [[nodiscard]] std::optional<double> matchedLoss(const Id& part) const;

    enum class Choice { Transformer, Tuner, Line, Chain, Capacitor };
    /// Works one of them out for the chain as it is, unless that is done: some hundredths of a second.
    void wantChoices(Choice choice);
    /// Empty before it is wanted and there is a report.
    [[nodiscard]] const std::vector<study::ChoiceRow>& choices(Choice choice) const { return m_choices[std::size_t(choice)]; }
    /// Of the chain's transformer; nothing without one, or before the capacitors are wanted and there is a report.
    [[nodiscard]] const std::optional<study::LeakageEffect>& leakage() const { return m_leakage; }
    /// m of line that types are compared at; 0: as long as it is.
    void setComparedLength(double length);
    [[nodiscard]] double comparedLength() const { return m_comparedLength; }
    /// Puts a row's chain to use, as it is worked out now; nothing happens where it is in use or no choice any more.
    void take(Choice choice, const study::ChoiceRow& row);

    /// At a frequency of the selected band; null where nothing is known there.
    [[nodiscard]] std::shared_ptr<const study::Reflection> reflection() const { return m_reflection; }
    void lookAt(double frequency);
    /// Hz, in the selected band.
    [[nodiscard]] double lookedAt() const;
    /// As it is worked out now; nothing happens where it is no cure any more.
    void takeCure(const study::ReflectionCure& cure);

    void wantShield();
    /// Null before the first.
    [[nodiscard]] std::shared_ptr<const study::ShieldAnswer> shield() const { return m_shield.answer(); }
    [[nodiscard]] bool shielding() const { return m_shield.busy(); }
    [[nodiscard]] bool shieldFresh() const;
    [[nodiscard]] const Faults& shieldFaults() const { return m_shield.faults(); }
    /// Whether the radio's end of the shield is joined to a station earth.
    [[nodiscard]] bool earthed() const { return m_earthed; }
    void setEarthed(bool earthed);

    // ---- edits, each one undoable step

    /// @param before the part that it shall stand before; empty: next to the radio. Returns its id.
    Id addPart(const std::string& kind, const Id& before = {});
    void removePart(const Id& part);
    void movePart(const Id& part, int places);
    void setValue(const Id& part, const std::string& key, double value, bool dragging = false);
    void setBasis(const Id& part, Basis basis);
    void setType(const Id& part, const std::string& type);
    void setLossTable(const Id& part, const std::vector<std::pair<double, double>>& table);
    /// Sizes a matching section, a stub or an L network for the selected band. Faults: what cannot be matched so.
    Faults size(const Id& part);
    void addChain();
    void useChain(const Id& chain);
    void removeChain(const Id& chain);
    void renameChain(const Id& chain, const QString& name);
    /// Puts a choke on the shield there, or moves the chain's first one.
    void placeChoke(double at);

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void changed(); ///< report, choices or reflection
    void shieldReady();

private:
    [[nodiscard]] study::FeedQuestion question() const;
    [[nodiscard]] study::ShieldQuestion shieldQuestion() const;
    [[nodiscard]] std::size_t ownCount(const std::vector<ChainPart>& whole) const;
    [[nodiscard]] std::vector<ChainPart> whole() const;
    void work();
    [[nodiscard]] std::vector<study::ChoiceRow> workedChoices(Choice choice, const study::FeedBasis& basis) const;
    [[nodiscard]] std::shared_ptr<const study::Reflection> workedReflection() const;
    void editChain(const QString& text, const QString& mergeKey, const std::function<void(Antenna&)>& change);
    void takeChain(const QString& text, const std::vector<ChainPart>& parts);

    Document& m_document;
    const AntennaModels& m_models;
    SolveService& m_solver;
    const std::vector<LineType>& m_lineTypes;
    std::shared_ptr<study::References> m_references = std::make_shared<study::References>();
    struct ShieldAsk {
        study::ShieldQuestion question;
        std::shared_ptr<const study::ShieldAnswer> known; ///< the same but for the chokes; null: nothing
        friend bool operator==(const ShieldAsk& a, const ShieldAsk& b) { return a.question == b.question; }
    };
    Asked<study::FeedQuestion, study::FeedBasis> m_basis;
    Asked<ShieldAsk, study::ShieldAnswer> m_shield;
    // worked out of what is solved whenever something changes: some tenths of a millisecond
    std::shared_ptr<const study::FeedReport> m_report;
    struct Worked {
        std::shared_ptr<const study::FeedBasis> basis;
        std::vector<ChainPart> parts;
        double power = 0.0;
        ServedRule rule;
        friend bool operator==(const Worked&, const Worked&) = default;
    } m_workedOf; ///< what the report and the choices were worked out of
    std::shared_ptr<const study::Reflection> m_reflection;
    std::array<std::vector<study::ChoiceRow>, 5> m_choices;
    std::array<bool, 5> m_worked{};
    std::optional<study::LeakageEffect> m_leakage;
    double m_comparedLength = 0.0, m_frequency = 0.0;
    bool m_earthed = true;
};

} // namespace vetchling::app
