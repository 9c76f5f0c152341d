#pragma once
/// One question at a time, answered in the background. It holds the question with the antenna it is about, asks nothing twice and nothing
/// while something is dragged; a newer question takes the place of the one before, whose answer stays until the new one is there, but for
/// another antenna's, which is forgotten at once. There is always an outcome: an answer or a fault.

#include "app/document/document.h"
#include "app/document/errand.h"
#include "app/document/waiting.h"

#include <memory>
#include <optional>

namespace vetchling::app {

/// How far an answer may be acted on: there is none, it is of how things were before a change, it is a part of what was asked, it is all.
enum class Standing { None, Before, Part, Whole };

template <class Question, class Answer> class Asked {
public:
    using SoFar = typename Errand<Answer>::SoFar;
    /// On a computing thread; may hand over what it knows so far, each time more complete.
    using Work = std::function<Result<Answer>(const Question&, const Watch&, const SoFar&)>;

    /// @param changed called on the window's thread after each answer or fault
    Asked(Document& document, SolveService& solver, Work work, std::function<void()> changed)
        : m_document(document), m_solver(solver), m_work(std::move(work)), m_changed(std::move(changed))
    {
        QObject::connect(&document, &Document::designReplaced, &m_receiver, [this] { forget(); });
    }
    ~Asked() { leave(); }
    Asked(const Asked&) = delete;
    Asked& operator=(const Asked&) = delete;

    /// States what is wanted of the antenna on show. Returns whether it was asked: not what was asked before, not while something is
    /// dragged, not without an antenna.
    bool want(Question question)
    {
        if (!m_document.hasAntenna() || m_document.dragging() || asks(question))
            return false;
        if (m_of != m_document.current())
            forget();
        leave();
        m_of = m_document.current();
        m_question = std::make_shared<const Question>(std::move(question));
        begin();
        return true;
    }
    void forget()
    {
        leave();
        m_question.reset();
        m_answered.reset();
        m_answer.reset();
        m_faults.clear();
    }

    /// By the person: the same question is not asked again before `goOn`.
    void giveUp()
    {
        if (!m_busy)
            return;
        leave();
        m_givenUp = true;
        m_changed();
    }
    void goOn()
    {
        if (!m_givenUp || !m_question)
            return;
        begin();
        m_changed();
    }
    [[nodiscard]] bool givenUp() const { return m_givenUp && isShown(); }
    [[nodiscard]] Waiting waiting()
    {
        return {[this] { return busy(); }, [this] { return givenUp(); }, [this] { return progress(); }, [this] { giveUp(); },
                [this] { goOn(); }, [this] { return busy() && answer() && !(*m_answered == *m_question); }};
    }

    /// The last one of the antenna on show, be it of how the antenna was before; null before the first.
    [[nodiscard]] std::shared_ptr<const Answer> answer() const { return isShown() ? m_answer : nullptr; }
    /// The question that answer is to; null without one.
    [[nodiscard]] std::shared_ptr<const Question> answered() const { return isShown() ? m_answered : nullptr; }
    /// Of the answer there is, to what would be asked now.
    [[nodiscard]] Standing standing(const Question& now) const
    {
        if (!answer())
            return Standing::None;
        return !(*m_answered == now) ? Standing::Before : m_whole ? Standing::Whole : Standing::Part;
    }
    /// Whether it is the answer to this question, though perhaps not the whole.
    [[nodiscard]] bool answers(const Question& now) const { return standing(now) >= Standing::Part; }
    /// The question that was put last of the antenna on show; null before the first.
    [[nodiscard]] std::shared_ptr<const Question> question() const { return isShown() ? m_question : nullptr; }
    [[nodiscard]] bool asks(const Question& question) const { return isShown() && m_question && *m_question == question; }
    [[nodiscard]] bool busy() const { return m_busy; }
    /// 0 to 1 of what is under way.
    [[nodiscard]] double progress() const { return m_job ? m_job->progress() : 0.0; }
    [[nodiscard]] const Faults& faults() const { return m_faults; }

private:
    [[nodiscard]] bool isShown() const { return m_document.hasAntenna() && m_of == m_document.current(); }

    void begin()
    {
        m_faults.clear();
        m_givenUp = false;
        m_job = send<Answer>(
            m_solver, &m_receiver,
            {[work = m_work, question = m_question](const Watch& watch, const SoFar& soFar) { return work(*question, watch, soFar); },
             [this, question = m_question, round = m_round](const Result<Answer>& answer, bool last) {
                 if (round == m_round)
                     take(question, answer, last);
             }});
        m_busy = m_job != nullptr; // no more when the program ends
    }

    void leave()
    {
        if (m_job)
            m_job->cancel();
        m_job.reset();
        ++m_round;
        m_busy = m_givenUp = false;
    }

    void take(const std::shared_ptr<const Question>& question, const Result<Answer>& answer, bool last)
    {
        m_busy = !last;
        if (last)
            m_job.reset();
        if (answer) {
            m_answer = std::make_shared<const Answer>(*answer);
            m_answered = question;
            m_whole = last;
        } else {
            m_faults = answer.faults();
            if (m_answered != question) // what was true before is not true of what cannot be answered
                m_answer.reset(), m_answered.reset();
        }
        m_changed();
    }

    Document& m_document;
    SolveService& m_solver;
    Work m_work;
    std::function<void()> m_changed;
    QObject m_receiver; ///< stands for this where Qt needs an object
    Id m_of;            ///< antenna
    std::shared_ptr<const Question> m_question, m_answered;
    std::shared_ptr<const Answer> m_answer;
    Faults m_faults;
    work::Queue::Ticket m_job;
    unsigned long m_round = 0;
    bool m_busy = false, m_givenUp = false, m_whole = false;
};

} // namespace vetchling::app
