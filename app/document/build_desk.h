#pragma once
/// The bench of the antenna on show: pieces, ropes, parts and cores as the design makes them, what was ticked and changed, and in the
/// background how far people have to keep away. Edits of all that.

#include "app/document/asked.h"
#include "core/study/recipe.h"
#include "core/study/safety.h"
#include "core/workshop/build_facts.h"
#include "core/workshop/core_facts.h"

#include <QObject>

namespace vetchling::app {

class AntennaModels;
class ShedDesk;

class BuildDesk : public QObject {
    Q_OBJECT
public:
    BuildDesk(Document& document, const AntennaModels& models, ShedDesk& shed, SolveService& solver, const QString& dataFolder,
              QObject* parent = nullptr);

    /// Why tables could not be read; empty if they were.
    [[nodiscard]] const Faults& faults() const { return m_faults; }
    [[nodiscard]] const WorkshopData& data() const { return m_data; }
    [[nodiscard]] const std::vector<LimitSet>& limits() const { return m_limits; }

    /// Null where there is no antenna, or none that can be built.
    [[nodiscard]] const BuildFacts* facts() const;
    /// Null as above.
    [[nodiscard]] std::shared_ptr<const shapes::BuiltAntenna> built() const;

    /// @param key see pieceKeys
    [[nodiscard]] PieceState piece(const std::string& key) const;
    void setPiece(const std::string& key, const PieceState& state);
    /// Changes anything of the bench in one undoable step.
    void edit(const QString& text, const QString& mergeKey, const std::function<void(Workshop&)>& change);
    void setAllowance(double Allowances::*member, double value, const QString& mergeKey = {});
    void setPart(const std::string& key, const PartChange& change);
    /// Returns its key.
    std::string addOwnPart(const QString& name);
    /// An own part goes; one of the design is left out, or taken back in.
    void removePart(const std::string& key);

    [[nodiscard]] CoreChoke choke() const;
    [[nodiscard]] CoreTransformer transformer() const;
    /// What is told of both; null without an antenna.
    [[nodiscard]] const CoreFacts* cores() const { return m_cores ? &*m_cores : nullptr; }
    /// Where the chain has one.
    [[nodiscard]] bool hasChoke() const;
    [[nodiscard]] bool hasTransformer() const;
    /// The lowest and highest frequency of the wished bands, Hz; the design's where none is wished for.
    [[nodiscard]] std::pair<double, double> wishedRange() const;
    /// The feed line's choke or transformer takes what was wound, as computed.
    void giveChokeToFeed();
    void giveTransformerToFeed();

    /// Asks for the fields in the background, once a state.
    void wantSafety();
    /// Null before the first.
    [[nodiscard]] std::shared_ptr<const study::SafetyBasis> safety() const;
    /// What it may be taken for: distances are kept by people.
    [[nodiscard]] Standing safetyStanding() const;
    [[nodiscard]] bool safetyBusy() const { return m_safety.busy(); }
    [[nodiscard]] bool safetyGivenUp() const { return m_safety.givenUp(); }
    [[nodiscard]] const Faults& safetyFaults() const { return m_safety.faults(); }
    /// That the antenna is judged by, else the first; null without an antenna and where no table was read.
    [[nodiscard]] const LimitSet* limit() const;
    [[nodiscard]] std::vector<study::KeepRow> keepRows() const;

    /// Adds the recipe's antenna with the wire of the one on show, its lengths corrected for wire and soil, when that is worked out.
    void copyRecipe(const study::Recipe& recipe);

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    /// The copy is there, or why not.
    void recipeReady(const QString& words);
    /// The fields of one more band are there.
    void safetyReady();

private:
    [[nodiscard]] study::Question safetyQuestion() const;
    void workOut();
    void takeCopy(const Result<study::RecipeCopy>& copy);
    void giveToFeed(const char* kind, const std::map<std::string, double>& values, const QString& text);

    Document& m_document;
    const AntennaModels& m_models;
    ShedDesk& m_shed;
    SolveService& m_solver;
    WorkshopData m_data;
    std::vector<LimitSet> m_limits;
    Faults m_faults;
    mutable std::optional<BuildFacts> m_facts; ///< worked out when they are first looked at: some milliseconds, not for each step of a drag
    std::optional<CoreFacts> m_cores;
    Asked<study::Question, study::SafetyBasis> m_safety;
    work::Queue::Ticket m_copying;
    unsigned long m_copyNumber = 0; ///< the last one counts
};

} // namespace vetchling::app
