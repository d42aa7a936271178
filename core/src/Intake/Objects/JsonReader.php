<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Objects;

use NineTally\Core\Intake\ByteStream;
use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Intake\FoundPart;
use NineTally\Core\Intake\PartFormat;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\RowByRowBatches;
use NineTally\Core\Intake\SinglePart;
use NineTally\Core\Intake\TextLines;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Excerpt;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/**
 * Reads JSON as a stream: a list of objects, wherever it stands, or one object a line. Columns are the names of all objects, in the order
 * in which
 * they first occur, so the file is read twice. Holds one object.
 */
final readonly class JsonReader implements Reader
{
    use SinglePart;
    use RowByRowBatches;

    private const BLOCK_BYTES = 131_072;

    private const REST_OF_STRING = '/^(?:[^"\\\\]|\\\\.)*+"/s';

    private Columns $columns;

    /**
     * @param  bool  $isLines  one object a line, instead of a list
     * @param  string  $recordPath  names of the members that lead to the list of records, joined by dots; '' where the list is the
     *     outermost
     *
     * @throws UnreadableFile
     */
    public function __construct(
        private string $path,
        private string $name,
        private bool $isLines,
        private int $rowLimit = DelimitedReader::ROW_LIMIT,
        private string $recordPath = '',
    ) {
        $names = [];
        foreach ($this->objects(null) as [, $object]) {
            $names += $object instanceof JsonObject ? $object->cells : [];
            if (count($names) > Columns::MOST) {
                throw UnreadableFile::hasTooManyColumns($name, count($names));
            }
        }
        if ($names === []) {
            throw UnreadableFile::isNoListOfObjects($name, 'no object in it has a property');
        }
        $this->columns = Columns::named($name, array_map(strval(...), array_keys($names)));
    }

    /** What kind of JSON a file is that begins so, and where its records may stand; null when it is no JSON. */
    public static function recognise(string $beginning): ?FoundPart
    {
        $text = ltrim(str_starts_with($beginning, "\xEF\xBB\xBF") ? substr($beginning, 3) : $beginning);
        if (! str_starts_with($text, '[') && ! str_starts_with($text, '{')) {
            return null;
        }
        if ($text[0] === '[') {
            return new FoundPart(PartFormat::json(false), ['kind' => 'JSON: it begins with a list']);
        }
        $lines = explode("\n", rtrim($text), 3);
        $isObject = json_decode($lines[0]) instanceof \stdClass;
        $lists = count($lines) > 1 && $isObject ? [] : JsonPlaces::ofLists($text);

        return $lists === []
            ? new FoundPart(PartFormat::json(true), ['kind' => 'JSON Lines: it begins with an object'])
            : new FoundPart(PartFormat::json(false, $lists[0], $lists), [
                'kind' => 'JSON: one object',
                'path' => count($lists) === 1 ? 'the only list of objects' : sprintf('the first of %d lists of objects', count($lists)),
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
        foreach ($this->objects($onBytes) as [$line, $object, $raw]) {
            if ($object instanceof JsonObject) {
                yield new Row($line, array_map(static fn(string $name): string => $object->cells[$name] ?? '', $this->columns->names));
            } else {
                $reason = match (true) {
                    $object === null => RefusalReason::OverRowLimit,
                    ! mb_check_encoding($raw, 'UTF-8') => RefusalReason::UndecodableBytes,
                    default => RefusalReason::NotAnObject,
                };
                yield RefusedRecord::because(
                    $line,
                    $reason,
                    $object === null ? ['limit' => $this->rowLimit] : array_filter(['error' => $object]),
                    $raw,
                );
            }
        }
    }

    /** @return \Generator<int, array{int, JsonObject|string|null, string}> line, object or why there is none (null: too long), raw text */
    private function objects(?callable $onBytes): \Generator
    {
        foreach ($this->isLines ? $this->lines($onBytes) : $this->elements($onBytes) as [$line, $json]) {
            yield $json === null ? [$line, null, ''] : [$line, JsonObject::read($json), $json];
        }
    }

    /** @return \Generator<int, array{int, string|null}> */
    private function lines(?callable $onBytes): \Generator
    {
        $mark = str_starts_with((string) @file_get_contents($this->path, false, null, 0, 3), "\xEF\xBB\xBF") ? 3 : 0;
        foreach ((new TextLines($this->path, $this->name, $this->rowLimit, markBytes: $mark))->read($onBytes) as $number => $json) {
            if ($json === null || trim($json) !== '') {
                yield [$number, $json];
            }
        }
    }

    /**
     * The elements of the list at the path: of the outermost one where there is none.
     *
     * @return \Generator<int, array{int, string|null}>
     */
    private function elements(?callable $onBytes): \Generator
    {
        $text = '';
        $at = $begin = $done = $depth = 0;
        $line = $beginLine = 1;
        // Depth of the list; null while it has not been met yet.
        $listDepth = null;
        $isBehindList = $hasEnded = $isTooLong = $isInLongString = false;
        $places = new JsonPlaces;
        foreach ($this->blocks($onBytes) as $block) {
            $text .= $block;
            if ($isInLongString) {
                if (preg_match(self::REST_OF_STRING, $text, $found) !== 1) {
                    $line += substr_count($text, "\n");
                    $text = preg_match('/(?<!\\\\)(?:\\\\\\\\)*\\\\$/D', $text) === 1 ? '\\' : '';

                    continue;
                }
                [$at, $isInLongString] = [strlen($found[0]), false];
            }
            while ($listDepth === null && ($token = $places->next($text, $at)) !== null) {
                $line += substr_count($text, "\n", $at, $token[1] - $at);
                $at = $done = $token[1];
                if ($places->isTooDeep()) {
                    throw UnreadableFile::isNoListOfObjects($this->name, sprintf('line %s stands too deep in it', number_format($line)));
                }
                if ($token[0] === '[' && $places->path() === $this->recordPath) {
                    $listDepth = $depth = $places->depth();
                }
            }
            while (
                $listDepth !== null &&
                preg_match('/"(?:[^"\\\\]|\\\\.)*+"|[{}\[\]"]/s', $text, $found, PREG_OFFSET_CAPTURE, $at) === 1 &&
                $found[0][0] !== '"'
            ) {
                [$token, $place] = $found[0];
                $line += substr_count($text, "\n", $at, $place + strlen($token) - $at);
                $at = $place + strlen($token);
                if ($token === '{' || $token === '[') {
                    if (++$depth === $listDepth + 1 && ! $isBehindList) {
                        yield from $this->between($text, $done, $place, $line);
                        [$begin, $beginLine, $isTooLong] = [$place, $line, false];
                    }
                } elseif (($token === '}' || $token === ']') && --$depth === $listDepth && ! $isBehindList) {
                    yield [$beginLine, $isTooLong || $at - $begin > $this->rowLimit ? null : substr($text, $begin, $at - $begin)];
                    $done = $at;
                } elseif ($depth === $listDepth - 1 && ! $isBehindList) {
                    yield from $this->between($text, $done, $place, $line);
                    [$isBehindList, $done] = [true, $at];
                }
                $hasEnded = $isBehindList && $depth === 0;
            }
            // What is done with is let go; an element that goes on stays.
            $isInElement = $listDepth !== null && $depth > $listDepth && ! $isBehindList;
            $kept = $isInElement ? $begin : ($isBehindList ? $at : $done);
            $text = substr($text, $kept);
            $at -= $kept;
            $done = max(0, $done - $kept);
            $begin = 0;
            if (strlen($text) <= $this->rowLimit + self::BLOCK_BYTES) {
                continue;
            }
            if (! $isInElement) {
                throw UnreadableFile::isNoListOfObjects(
                    $this->name,
                    sprintf('what follows line %s is no object and has no end', number_format($line)),
                );
            }
            // No row may be so long: it is passed over, and nothing of it is held.
            $isTooLong = true;
            $text = substr($text, $at);
            $at = $done = 0;
            if (strlen($text) > self::BLOCK_BYTES) {
                $isInLongString = str_contains($text, '"');
                $line += substr_count($text, "\n");
                $text = '';
            }
        }
        if ($listDepth === null && $this->recordPath !== '') {
            throw UnreadableFile::isNoListOfObjects(
                $this->name,
                sprintf('nothing in it is a list at "%s"', Excerpt::of((string) $this->recordPath)),
            );
        }
        if (! $hasEnded) {
            throw UnreadableFile::endsTooEarly($this->name);
        }
    }

    /**
     * What stands between two objects of a list and is neither comma nor space: a number, a word. It is refused, not passed over.
     *
     * @return \Generator<int, array{int, string}>
     */
    private function between(string $text, int $from, int $to, int $line): \Generator
    {
        $other = trim(substr($text, $from, $to - $from), " \t\r\n,[");
        if ($other !== '') {
            yield [$line, $other];
        }
    }

    /** @return \Generator<int, string> */
    private function blocks(?callable $onBytes): \Generator
    {
        $stream = ByteStream::open($this->path, $this->name);
        $isFirst = true;
        try {
            while (($block = $stream->read(self::BLOCK_BYTES)) !== '') {
                yield $isFirst && str_starts_with($block, "\xEF\xBB\xBF") ? substr($block, 3) : $block;
                $isFirst = false;
                $onBytes === null || $onBytes($stream->position());
            }
        } finally {
            $stream->close();
        }
    }
}
