#pragma once
/// What is left to do: of the antenna on show as soon as it rests, of the whole site when somebody looks at it. What is wrong with a place
/// is there at once, all else when it is worked out.

#include "app/document/asked.h"
#include "core/advice/left.h"

#include <QObject>
#include <QTimer>

namespace vetchling::app {

class AntennaModels;

class LeftDesk : public QObject {
    Q_OBJECT
public:
    LeftDesk(Document& document, const AntennaModels& models, SolveService& solver, const QString& dataFolder, QObject* parent = nullptr);

    /// Of the antenna on show, sorted. What is worked out is of how it was, where `standing` says so.
    [[nodiscard]] std::vector<advice::Finding> findings() const;
    /// Of all antennas and of none alone: those that can hurt somebody first, then the site's own, then antenna by antenna.
    [[nodiscard]] std::vector<advice::Finding> siteWide() const;
    /// How far the findings may be acted on.
    [[nodiscard]] Standing standing() const;
    [[nodiscard]] Standing siteStanding() const;
    /// Of the antenna on show.
    [[nodiscard]] int open() const;
    [[nodiscard]] int dangers() const;
    [[nodiscard]] bool busy() const { return m_soon.isActive() || m_one.busy() || m_site.busy(); }

    /// Looks now, unless that is done.
    void want();
    void wantSite();
    /// What a page has solved that nobody else waits for, of the antenna on show as it is; it holds until that changes.
    void hear(std::vector<advice::Finding> findings);
    /// Does what a finding's cure says, in one undoable step; nothing where it has none, or is of how things were.
    void cure(const advice::Finding& finding);

    /// What may take long here.
    [[nodiscard]] std::vector<NamedWaiting> waitings();

signals:
    void changed();

private:
    struct Question {
        DesignPointer design;
        Id antenna; ///< empty: all
        advice::Solved solved{};
        friend bool operator==(const Question& a, const Question& b) { return a.design == b.design && a.antenna == b.antenna; }
    };
    struct Answer {
        std::map<Id, std::vector<advice::Finding>> antennas;
        std::vector<advice::Finding> site;
    };
    [[nodiscard]] static Result<Answer> look(study::Library& library, study::References& references, const advice::LeftData& data,
                                             const Question& asked, const Watch& watch);
    [[nodiscard]] Question question() const { return {m_document.snapshot(), m_document.current(), {}}; }
    [[nodiscard]] Question siteQuestion() const { return {m_document.snapshot(), {}, {}}; }
    [[nodiscard]] std::vector<advice::Finding> withWorkedOut(const Id& antenna, const Answer* answer) const;
    [[nodiscard]] bool solverRests() const;
    void later();

    Document& m_document;
    const AntennaModels& m_models;
    SolveService& m_solver;
    std::shared_ptr<const advice::LeftData> m_data;
    std::shared_ptr<study::References> m_references = std::make_shared<study::References>();
    Asked<Question, Answer> m_one, m_site;
    QTimer m_soon;
    Question m_heardOf;
    std::vector<advice::Finding> m_heard;
};

} // namespace vetchling::app
