<?php

declare(strict_types=1);

namespace NineTally\Core\Report;

/** Files of one folder that get their names when all of them are whole, so that the folder never holds half a result. */
final class WholeFiles
{
    private const ENDING = '.unfinished';

    private const BUFFER_BYTES = 65_536;

    /** @var array<string, resource> */
    private array $files = [];

    /** @var array<string, string> by file: what is still to be written */
    private array $buffers = [];

    public function __construct(private readonly string $folder) {}

    /**
     * @param  list<string>|null  $header  null of a file that has none
     *
     * @throws UnwritableFolder
     */
    public function open(string $name, ?array $header = null): void
    {
        $file = @fopen($this->path($name).self::ENDING, 'wb');
        if ($file === false) {
            throw UnwritableFolder::at($this->folder);
        }
        $this->files[$name] = $file;
        $this->buffers[$name] = '';
        if ($header !== null) {
            $this->addLine($name, $header);
        }
    }

    public function has(string $name): bool
    {
        return isset($this->files[$name]);
    }

    /** @param list<string|int> $cells */
    public function addLine(string $name, array $cells): void
    {
        $this->add($name, CsvLine::of($cells));
    }

    /** @throws UnwritableFolder */
    public function add(string $name, string $bytes): void
    {
        $this->buffers[$name] .= $bytes;
        if (strlen($this->buffers[$name]) >= self::BUFFER_BYTES) {
            $this->flush($name);
        }
    }

    /**
     * The bytes of a file that stands elsewhere.
     *
     * @throws UnwritableFolder
     */
    public function addFile(string $name, string $path): void
    {
        $this->flush($name);
        $file = fopen($path, 'rb');
        if ($file === false || @stream_copy_to_stream($file, $this->files[$name]) !== filesize($path)) {
            throw UnwritableFolder::at($this->folder);
        }
    }

    /** @param list<string> $header of a file that turned out to need another */
    public function beginAnew(string $name, array $header): void
    {
        ftruncate($this->files[$name], 0);
        $this->buffers[$name] = '';
        $this->addLine($name, $header);
    }

    /**
     * @return list<string> the names of the files
     *
     * @throws UnwritableFolder
     */
    public function finish(): array
    {
        foreach ($this->files as $name => $file) {
            $this->flush($name);
            if (! fflush($file) || ! fclose($file) || ! rename($this->path($name).self::ENDING, $this->path($name))) {
                throw UnwritableFolder::at($this->folder);
            }
        }
        $names = array_keys($this->files);
        $this->files = [];

        return $names;
    }

    /** Removes what was begun and not finished. */
    public function __destruct()
    {
        foreach ($this->files as $name => $file) {
            fclose($file);
            unlink($this->path($name).self::ENDING);
        }
    }

    private function flush(string $name): void
    {
        if (@fwrite($this->files[$name], $this->buffers[$name]) !== strlen($this->buffers[$name])) {
            throw UnwritableFolder::at($this->folder);
        }
        $this->buffers[$name] = '';
    }

    private function path(string $name): string
    {
        return "{$this->folder}/{$name}";
    }
}
