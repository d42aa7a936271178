<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Objects;

use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\FoundPart;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\RowByRowBatches;
use NineTally\Core\Intake\SinglePart;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/**
 * Reads records of XML as a stream: every element at the path is one. Its cells are called by the path inside of it ("holder.name",
 * "@id" for an attribute); what stands several times becomes a JSON list. Columns are the names of all records, in the order in which
 * they first occur, so the file is read twice. Holds one record.
 */
final readonly class XmlReader implements Reader
{
    use SinglePart;
    use RowByRowBatches;

    private Columns $columns;

    /**
     * @param  string  $recordPath  from the outermost element, such as "register/berth"
     *
     * @throws UnreadableFile
     */
    public function __construct(
        private string $path,
        private string $name,
        private string $recordPath,
        private int $rowLimit = DelimitedReader::ROW_LIMIT,
    ) {
        $names = [];
        foreach ((new XmlRecords($path, $name, $recordPath, $rowLimit))->read() as $cells) {
            $names += $cells ?? [];
            if (count($names) > Columns::MOST) {
                throw UnreadableFile::hasTooManyColumns($name, count($names));
            }
        }
        $this->columns = $names === []
            ? throw UnreadableFile::isNoXmlOfRecords($name, sprintf('no element at "%s" holds a value', $recordPath))
            : Columns::named($name, array_map(strval(...), array_keys($names)));
    }

    /** Where the records of a file may stand that begins so; null when it is no XML. */
    public static function recognise(string $beginning, string $name): ?FoundPart
    {
        // Byte-order marks and the zero bytes of UTF-16 say nothing here.
        $text = ltrim(str_replace("\0", '', (string) preg_replace('/^(?:\xEF\xBB\xBF|\xFF\xFE|\xFE\xFF)/', '', $beginning)));
        if (preg_match('/^<(?:\?xml\b|!|[A-Za-z_:])/', $text) !== 1) {
            return null;
        }
        $paths = XmlRecords::pathsIn($beginning, $name);

        return new FoundPart(PartFormat::xml($paths[0], $paths), [
            'kind' => 'XML: it begins with an element',
            'path' =>
                count($paths) === 1 ? 'the only element with values in it' : sprintf('the first of %d that may be records', count($paths)),
        ]);
    }

    public function columns(): Columns
    {
        return $this->columns;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function bytes(): int
    {
        return (int) @filesize($this->path);
    }

    public function records(?callable $onBytes = null): \Generator
    {
        foreach ((new XmlRecords($this->path, $this->name, $this->recordPath, $this->rowLimit))->read($onBytes) as $line => $cells) {
            yield $cells === null
                ? RefusedRecord::because($line, RefusalReason::OverRowLimit, ['limit' => $this->rowLimit], '')
                : new Row($line, array_map(static fn(string $name): string => $cells[$name] ?? '', $this->columns->names));
        }
    }
}
