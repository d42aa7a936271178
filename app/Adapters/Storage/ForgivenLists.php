<?php

declare(strict_types=1);

namespace App\Adapters\Storage;

use Illuminate\Support\Facades\File;

/**
 * Lists of cells, one for each pattern that a rule let pass, in the order of the source: a cell is a line, and beside each list the places
 * at
 * which its lines begin (8 bytes each), so that a page begins anywhere. A folder has all lists or is not there.
 *
 * @phpstan-type ForgivenCell array{key: string, sourcePart: int, sourceLine: int, targetPart: int, targetLine: int, source: string,
 *     target: string}
 */
final class ForgivenLists
{
    private const BUFFER_BYTES = 65_536;

    private const PLACE_BYTES = 8;

    /** @var array<string, int> number of each list, from 1 */
    private array $numbers = [];

    /** @var array<int, string> */
    private array $buffers = [];

    /** @var array<int, string> */
    private array $places = [];

    /** @var array<int, int> bytes written to each list */
    private array $bytes = [];

    private string $aside = '';

    public function __construct(private readonly string $folder) {}

    /** @param list<string> $names of the lists, in the order of their numbers */
    public function begin(array $names): self
    {
        foreach ($names as $place => $name) {
            $this->numbers[$name] = $place + 1;
        }
        $this->aside = $this->folder.'.'.bin2hex(random_bytes(6));
        File::ensureDirectoryExists($this->aside, 0700);

        return $this;
    }

    /** @param array{string, int, int, int, int, string, string} $cell key, part and line of each side, value of each side */
    public function add(string $name, array $cell): void
    {
        $list = $this->numbers[$name] ?? throw new \LogicException("The tally counted no list \"{$name}\".");
        $line =
            json_encode($cell, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES)."\n";
        $this->places[$list] = ($this->places[$list] ?? '').pack('J', $this->bytes[$list] ?? 0);
        $this->bytes[$list] = ($this->bytes[$list] ?? 0) + strlen($line);
        $this->buffers[$list] = ($this->buffers[$list] ?? '').$line;
        if (strlen($this->buffers[$list]) >= self::BUFFER_BYTES) {
            $this->flush($list);
        }
    }

    public function finish(): void
    {
        array_map($this->flush(...), array_keys($this->buffers));
        File::deleteDirectory($this->folder);
        File::moveDirectory($this->aside, $this->folder);
        $this->aside = '';
    }

    /** What was begun and not finished. */
    public function abandon(): void
    {
        if ($this->aside !== '') {
            File::deleteDirectory($this->aside);
        }
    }

    /** Whether they are still kept; who asks uses them, and what nobody uses is cleared up. */
    public function areKept(): bool
    {
        return is_dir($this->folder) && touch($this->folder);
    }

    public function count(int $list): int
    {
        return intdiv((int) @filesize("{$this->folder}/{$list}.places"), self::PLACE_BYTES);
    }

    /**
     * @param  int  $from  counted from 1
     * @param  string|null  $text  that the key or a value has somewhere, capitals or not; null for every cell
     * @return \Generator<int, ForgivenCell> by their place in the list, from 1
     */
    public function cells(int $list, int $from = 1, ?string $text = null): \Generator
    {
        $file = @fopen("{$this->folder}/{$list}", 'rb');
        $places = @fopen("{$this->folder}/{$list}.places", 'rb');
        if ($file === false || $places === false) {
            return;
        }
        try {
            fseek($places, ($from - 1) * self::PLACE_BYTES);
            $place = unpack('J', (string) fread($places, self::PLACE_BYTES));
            if ($place === false || ! isset($place[1]) || ! is_int($place[1])) {
                return;
            }
            fseek($file, $place[1]);
            for ($number = $from; ($line = fgets($file)) !== false; $number++) {
                /** @var array{string, int, int, int, int, string, string} $cell */
                $cell = json_decode($line, true, 4, JSON_THROW_ON_ERROR);
                if ($text === null || self::has([$cell[0], $cell[5], $cell[6]], $text)) {
                    yield $number => array_combine(
                        ['key', 'sourcePart', 'sourceLine', 'targetPart', 'targetLine', 'source', 'target'],
                        $cell,
                    );
                }
            }
        } finally {
            fclose($file);
            fclose($places);
        }
    }

    /** @param list<string> $texts */
    private static function has(array $texts, string $text): bool
    {
        foreach ($texts as $one) {
            if (mb_stripos($one, $text) !== false) {
                return true;
            }
        }

        return false;
    }

    private function flush(int $list): void
    {
        file_put_contents("{$this->aside}/{$list}", $this->buffers[$list], FILE_APPEND);
        file_put_contents("{$this->aside}/{$list}.places", $this->places[$list], FILE_APPEND);
        $this->buffers[$list] = $this->places[$list] = '';
    }
}
