<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\Row\Columns;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;

/**
 * Reads JSON as a stream: a list of objects, or one object a line. Columns are the names of all objects, in the order in which
 * they first occur, so the file is read twice. Holds one object.
 */
final readonly class JsonReader implements Reader
{
    use IsOneFile;
    use ReadsRowByRow;

    private const BLOCK_BYTES = 131_072;

    private Columns $columns;

    /**
     * @param  bool  $isLines  one object a line, instead of a list
     *
     * @throws NotUsable
     */
    public function __construct(private string $path, private string $name, private bool $isLines, private int $rowLimit = DelimitedReader::ROW_LIMIT)
    {
        $names = [];
        foreach ($this->objects(null) as [, $object]) {
            $names += $object instanceof JsonObject ? $object->cells : [];
            if (count($names) > Columns::MOST) {
                throw NotUsable::hasTooManyColumns($name, count($names));
            }
        }
        if ($names === []) {
            throw NotUsable::isNoListOfObjects($name, 'no object in it has a property');
        }
        $this->columns = Columns::named($name, array_map(strval(...), array_keys($names)));
    }

    /** @return bool|null whether a file that begins so holds an object a line (true) or a list (false); null when it is not JSON */
    public static function recognises(string $beginning): ?bool
    {
        $text = ltrim(str_starts_with($beginning, "\xEF\xBB\xBF") ? substr($beginning, 3) : $beginning);

        return match ($text[0] ?? '') {
            '[' => false,
            '{' => true,
            default => null,
        };
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
                yield RefusedRecord::because($line, $reason, $object ?? sprintf('longer than the row limit of %s bytes', number_format($this->rowLimit)), $raw);
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
        $line = 0;
        $rest = '';
        $isTooLong = false;
        foreach ($this->blocks($onBytes) as $block) {
            $lines = explode("\n", $rest.$block);
            $rest = (string) array_pop($lines);
            foreach ($lines as $json) {
                $line++;
                if ($isTooLong || trim($json) !== '') {
                    yield [$line, $isTooLong || strlen($json) > $this->rowLimit ? null : $json];
                }
                $isTooLong = false;
            }
            if (strlen($rest) > $this->rowLimit) {
                $isTooLong = true;
                $rest = '';
            }
        }
        if ($isTooLong || trim($rest) !== '') {
            yield [$line + 1, $isTooLong ? null : $rest];
        }
    }

    /**
     * The elements of the outermost list.
     *
     * @return \Generator<int, array{int, string|null}>
     */
    private function elements(?callable $onBytes): \Generator
    {
        $text = '';
        $at = $depth = $begin = $done = 0;
        $line = $beginLine = 1;
        $hasEnded = false;
        foreach ($this->blocks($onBytes) as $block) {
            $text .= $block;
            while (preg_match('/"(?:[^"\\\\]|\\\\.)*+"|[{}\[\]"]/s', $text, $found, PREG_OFFSET_CAPTURE, $at) === 1 && $found[0][0] !== '"') {
                [$token, $place] = $found[0];
                $line += substr_count($text, "\n", $at, $place + strlen($token) - $at);
                $at = $place + strlen($token);
                if ($token === '{' || $token === '[') {
                    if (++$depth === 2) {
                        yield from $this->between($text, $done, $place, $line);
                        [$begin, $beginLine] = [$place, $line];
                    }
                } elseif (($token === '}' || $token === ']') && --$depth === 1) {
                    yield [$beginLine, $at - $begin > $this->rowLimit ? null : substr($text, $begin, $at - $begin)];
                    $done = $at;
                } elseif ($depth === 0) {
                    yield from $this->between($text, $done, $place, $line);
                    [$hasEnded, $done] = [true, $at];
                }
            }
            // What is done with is let go; an element that goes on stays.
            $kept = $depth >= 2 ? $begin : $done;
            $text = substr($text, $kept);
            $at -= $kept;
            $done = max(0, $done - $kept);
            $begin = 0;
        }
        if (! $hasEnded) {
            throw NotUsable::breaksOff($this->name);
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
