<?php

declare(strict_types=1);

namespace NineTally\Tests;

use NineTally\Core\Intake\Delimited\DelimitedReader;
use NineTally\Core\Tally\Workspace;

/** Files and folders of a test, gone when it ends. */
trait TemporaryFiles
{
    private ?Workspace $temporary = null;

    protected function tearDown(): void
    {
        $this->temporary?->remove();
        $this->temporary = null;
        parent::tearDown();
    }

    protected function folder(string $name = ''): string
    {
        $this->temporary ??= Workspace::make();
        $path = "{$this->temporary->path}/{$name}";
        if (! is_dir($path)) {
            mkdir($path, 0700, true);
        }

        return $path;
    }

    protected function file(string $content, string $name = 'berths.csv'): string
    {
        $path = $this->folder().'/'.$name;
        file_put_contents($path, $content);

        return $path;
    }

    protected function reader(string $content, string $name = 'berths.csv', int $rowLimit = DelimitedReader::ROW_LIMIT): DelimitedReader
    {
        return DelimitedReader::detecting($this->file($content, $name), $name, $rowLimit);
    }
}
