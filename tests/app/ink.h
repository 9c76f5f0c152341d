#pragma once
/// What a graphic puts on paper, taken from its strokes and not from its own bookkeeping: words that run into one another, that are struck
/// by a curve or cut at the edge.

#include <QPaintDevice>
#include <QPainterPath>
#include <QPolygonF>
#include <QString>
#include <QStringList>

#include <memory>
#include <vector>

namespace vetchling::app {

class InkEngine;

/// Paper that remembers what was drawn on it, in the order of drawing.
class Ink : public QPaintDevice {
public:
    explicit Ink(QSizeF size);
    ~Ink() override;
    Ink(const Ink&) = delete;
    Ink& operator=(const Ink&) = delete;

    [[nodiscard]] QPaintEngine* paintEngine() const override;

    /// "over 9 x 11.3 dB": words whose ink meets.
    [[nodiscard]] QStringList wordsOnWords() const;
    /// Words that a drawn curve or outline runs through, with nothing filled between them.
    [[nodiscard]] QStringList wordsStruck() const;
    /// Words that leave the paper.
    [[nodiscard]] QStringList wordsCut() const;
    [[nodiscard]] QStringList texts() const;
    [[nodiscard]] int words() const { return int(m_words.size()); }

protected:
    [[nodiscard]] int metric(PaintDeviceMetric metric) const override;

private:
    friend class InkEngine;
    struct Words {
        QString text;
        QPolygonF ink;
        int order = 0;
    };
    struct Stroke {
        QPainterPath line; ///< as thick as it is drawn
        int order = 0;
    };
    struct Fill {
        QPainterPath area;
        int order = 0;
    };
    [[nodiscard]] bool isCovered(const Words& words, const Stroke& stroke) const;

    QSizeF m_size;
    std::vector<Words> m_words;
    std::vector<Stroke> m_strokes;
    std::vector<Fill> m_fills;
    int m_order = 0;
    std::unique_ptr<InkEngine> m_engine;
};

} // namespace vetchling::app
