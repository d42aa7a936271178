<?php

declare(strict_types=1);

namespace NineTally\Core\Intake\Objects;

use NineTally\Core\Intake\ByteStream;
use NineTally\Core\Intake\UnreadableFile;

/**
 * The elements of an XML file at one path, each as its cells by name. A document type is refused (so no entity can be declared), and
 * nothing outside of the file is ever asked for. Lines are those on which the elements end.
 */
final class XmlRecords
{
    private const BLOCK_BYTES = 65_536;

    /** Elements in one another; registers have three or four. */
    private const MOST_DEPTH = 200;

    /** @var list<string> names of the elements that are open */
    private array $open = [];

    /** @var list<bool> for each open element: whether it has elements in it */
    private array $hasElements = [];

    /** @var list<string> the text of each open element so far */
    private array $texts = [];

    /** @var array<string, list<string>>|null of the record that is open */
    private ?array $values = null;

    private int $bytes = 0;

    private bool $isTooLong = false;

    private readonly int $depth;

    /** @var list<array{int, array<string, string>|null}> that are complete and have not been given yet */
    private array $ready = [];

    private \XMLParser $parser;

    public function __construct(
        private readonly string $path,
        private readonly string $name,
        private readonly string $recordPath,
        private readonly int $rowLimit,
    ) {
        $this->depth = substr_count($recordPath, '/') + 1;
        $this->parser = xml_parser_create();
        xml_parser_set_option($this->parser, XML_OPTION_CASE_FOLDING, 0);
        xml_parser_set_option($this->parser, XML_OPTION_TARGET_ENCODING, 'UTF-8');
        xml_set_element_handler($this->parser, $this->begin(...), $this->end(...));
        xml_set_character_data_handler($this->parser, $this->text(...));
    }

    /**
     * Paths of elements that may be the records: those that stand several times and have values in them, the outermost first.
     *
     * @return non-empty-list<string>
     *
     * @throws UnreadableFile
     */
    public static function pathsIn(string $beginning, string $name): array
    {
        self::mustDeclareNothing($beginning, $name);
        $counts = [];
        $open = [];
        $parser = xml_parser_create();
        xml_parser_set_option($parser, XML_OPTION_CASE_FOLDING, 0);
        xml_set_element_handler(
            $parser,
            static function (\XMLParser $parser, string $element, array $attributes) use (&$counts, &$open, $name): void {
                self::mustNotBeDeep(count($open), $name);
                if ($open !== []) {
                    $counts[implode('/', $open)]['holds'] = true;
                }
                $open[] = $element;
                $path = implode('/', $open);
                $counts[$path] = [
                    'holds' => ($counts[$path]['holds'] ?? false) || $attributes !== [],
                    'times' => ($counts[$path]['times'] ?? 0) + 1,
                ];
            },
            static function () use (&$open): void {
                array_pop($open);
            },
        );
        // The beginning may end anywhere: what the parser says of its end does not matter here.
        if (xml_parse($parser, $beginning) !== 1 && count($counts) < 2) {
            throw UnreadableFile::isNoXmlOfRecords($name, self::problem($parser));
        }
        $holding = array_filter($counts, static fn(array $path): bool => $path['holds'] && isset($path['times']));
        $several = array_filter($holding, static fn(array $path): bool => $path['times'] > 1);
        $paths = array_map(strval(...), array_keys($several !== [] ? $several : $holding));
        usort($paths, static fn(string $one, string $other): int => substr_count($one, '/') <=> substr_count($other, '/'));
        // Where nothing stands twice, the outermost element is the register and what is in it the records.
        $inner = array_values(array_filter($paths, static fn(string $path): bool => str_contains($path, '/')));

        return $inner !== []
            ? $inner
            : ($paths !== []
                ? $paths
                : throw UnreadableFile::isNoXmlOfRecords($name, 'no element in it holds others'));
    }

    /**
     * @param  (callable(int): void)|null  $onBytes
     * @return \Generator<int, array<string, string>|null> line => cells by name; null: longer than the row limit
     *
     * @throws UnreadableFile
     */
    public function read(?callable $onBytes = null): \Generator
    {
        $stream = ByteStream::open($this->path, $this->name);
        $isFirst = true;
        try {
            do {
                $block = $stream->read(self::BLOCK_BYTES);
                if ($isFirst) {
                    self::mustDeclareNothing($block, $this->name);
                    $isFirst = false;
                }
                if (xml_parse($this->parser, $block, $block === '') !== 1) {
                    throw UnreadableFile::isNoXmlOfRecords($this->name, self::problem($this->parser));
                }
                $ready = $this->ready;
                $this->ready = [];
                foreach ($ready as [$line, $cells]) {
                    yield $line => $cells;
                }
                $onBytes === null || $onBytes($stream->position());
            } while ($block !== '');
        } finally {
            $stream->close();
        }
    }

    /** @param array<string, string> $attributes */
    private function begin(\XMLParser $parser, string $element, array $attributes): void
    {
        if (array_pop($this->hasElements) !== null) {
            $this->hasElements[] = true;
        }
        self::mustNotBeDeep(count($this->open), $this->name);
        $this->open[] = $element;
        $this->hasElements[] = false;
        $this->texts[] = '';
        if (count($this->open) === $this->depth && implode('/', $this->open) === $this->recordPath) {
            [$this->values, $this->bytes, $this->isTooLong] = [[], 0, false];
        }
        foreach ($this->values === null ? [] : $attributes as $attribute => $value) {
            $this->put(ltrim($this->inner().'.@'.$attribute, '.'), $value);
        }
    }

    private function text(\XMLParser $parser, string $text): void
    {
        if ($this->values !== null) {
            $this->bytes += strlen($text);
            $this->isTooLong = $this->isTooLong || $this->bytes > $this->rowLimit;
            $this->texts[] = array_pop($this->texts).($this->isTooLong ? '' : $text);
        }
    }

    private function end(\XMLParser $parser): void
    {
        $text = array_pop($this->texts) ?? '';
        $hasElements = array_pop($this->hasElements) ?? false;
        $isRecord = $this->values !== null && count($this->open) === $this->depth;
        if ($this->values !== null && (! $hasElements || trim($text) !== '') && ($text !== '' || ! $isRecord)) {
            $this->put($isRecord ? (string) end($this->open) : $this->inner(), $hasElements ? trim($text) : $text);
        }
        array_pop($this->open);
        if ($isRecord && $this->values !== null) {
            $this->ready[] = [
                (int) xml_get_current_line_number($parser),
                $this->isTooLong ? null : array_map(self::cell(...), $this->values),
            ];
            $this->values = null;
        }
    }

    /** The path inside of the record. */
    private function inner(): string
    {
        return implode('.', array_slice($this->open, $this->depth));
    }

    private function put(string $name, string $value): void
    {
        $this->bytes += strlen($name) + strlen($value);
        $this->isTooLong = $this->isTooLong || $this->bytes > $this->rowLimit;
        if (! $this->isTooLong) {
            $this->values[$name][] = $value;
        }
    }

    /** @param list<string> $values */
    private static function cell(array $values): string
    {
        return count($values) === 1
            ? $values[0]
            : json_encode($values, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }

    /** Only a document type can declare entities, and it stands before the outermost element (XML 1.0, section 2.8). */
    private static function mustDeclareNothing(string $beginning, string $name): void
    {
        $text = str_replace("\0", '', $beginning);
        $prolog = preg_match('/<[A-Za-z_:]/', $text, $found, PREG_OFFSET_CAPTURE) === 1 ? substr($text, 0, $found[0][1]) : $text;
        if (stripos((string) preg_replace('/<!--.*?-->/s', '', $prolog), '<!DOCTYPE') !== false) {
            throw UnreadableFile::hasDocumentType($name);
        }
    }

    private static function mustNotBeDeep(int $depth, string $name): void
    {
        if ($depth >= self::MOST_DEPTH) {
            throw UnreadableFile::isNoXmlOfRecords($name, sprintf('its elements stand more than %d deep in one another', self::MOST_DEPTH));
        }
    }

    private static function problem(\XMLParser $parser): string
    {
        return sprintf(
            'line %s: %s',
            number_format((int) xml_get_current_line_number($parser)),
            lcfirst((string) xml_error_string(xml_get_error_code($parser))),
        );
    }
}
