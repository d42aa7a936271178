<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Workbooks;

use Brick\Math\BigDecimal;
use OpenSpout\Common\Entity\Cell;
use OpenSpout\Common\Manager\OptionsManagerInterface;
use OpenSpout\Reader\Common\Manager\RowManager;
use OpenSpout\Reader\Common\XMLProcessor;
use OpenSpout\Reader\ODS\Creator\InternalEntityFactory;
use OpenSpout\Reader\ODS\Helper\CellValueFormatter;
use OpenSpout\Reader\ODS\RowIterator;
use OpenSpout\Reader\Wrapper\XMLReader;

/**
 * The rows of a sheet of an Open Document, as OpenSpout reads them but for what it leaves out or bends: cells that a merged cell covers
 * keep their place, "false" is not true, amounts keep every digit and say no currency, times of the day are read, and notes on a cell
 * are no part of it (OpenDocument 1.3, part 3, 9.1.4 to 9.1.5 and 19.385 to 19.389).
 */
final class OpenDocumentRows extends RowIterator
{
    public function __construct(
        XMLReader $xmlReader,
        OptionsManagerInterface $optionsManager,
        CellValueFormatter $cellValueFormatter,
        RowManager $rowManager,
        InternalEntityFactory $entityFactory,
    ) {
        $processor = new XMLProcessor($xmlReader);
        parent::__construct($xmlReader, $optionsManager, $cellValueFormatter, $processor, $rowManager, $entityFactory);
        $processor->registerCallback('table:covered-table-cell', XMLProcessor::NODE_TYPE_START, [$this, 'processCellStartingNode']);
    }

    protected function getCell($node): Cell
    {
        $value = match ($node->getAttribute('office:value-type')) {
            'float', 'currency', 'percentage' => self::digits($node->getAttribute('office:value')),
            'boolean' => $node->getAttribute('office:boolean-value'),
            'time' => self::time($node->getAttribute('office:time-value')),
            'date' => null,
            default => $this->text($node),
        };

        return $value === null ? parent::getCell($node) : new Cell($value);
    }

    /** Every digit that was written, without an exponent; one that no double has would write digits without end, and stays. */
    private static function digits(string $value): string
    {
        return preg_match('/^[-+]?\d+(?:\.\d+)?e[-+]?\d{1,3}$/i', $value) === 1 ? (string) BigDecimal::of($value) : $value;
    }

    /** A duration of hours, minutes and seconds (ISO 8601) as the time that a clock shows; any other as it is written. */
    private static function time(string $value): string
    {
        return preg_match('/^PT(\d+)H(\d+)M(\d+)(?:[.,](\d+))?S$/', $value, $found) === 1
            ? sprintf(
                '%02d:%02d:%02d%s',
                $found[1],
                $found[2],
                $found[3],
                rtrim($found[4] ?? '', '0') === '' ? '' : '.'.rtrim($found[4], '0'),
            )
            : $value;
    }

    private function text(\DOMElement $node): string
    {
        $notes = $node->getElementsByTagName('annotation');
        $isPlain = $notes->length === 0 && $node->getAttribute('office:value-type') === 'string';
        $value = parent::getCell($isPlain ? $node : self::withoutNotes($node))->getValue();

        return is_string($value) ? $value : '';
    }

    private static function withoutNotes(\DOMElement $node): \DOMElement
    {
        // What a stream of XML gives may not be altered where it is.
        $cell = (new \DOMDocument)->importNode($node, true);
        assert($cell instanceof \DOMElement);
        foreach (iterator_to_array($cell->getElementsByTagName('annotation')) as $note) {
            $note->parentNode?->removeChild($note);
        }
        // A cell may say nothing of its kind, and have a text all the same.
        $cell->setAttribute('office:value-type', 'string');

        return $cell;
    }
}
