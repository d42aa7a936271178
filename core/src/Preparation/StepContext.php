<?php

declare(strict_types=1);

namespace NineTally\Core\Preparation;

use NineTally\Core\Row\Excerpt;
use NineTally\Core\Value\DeclaredForms;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** What a step may use while it runs, and where it reports. */
final readonly class StepContext
{
    /**
     * @param  string  $folder  for rows that are written aside
     * @param  array<string, string>  $parameters  of the tally, by name
     * @param  (\Closure(int, list<string>, int|null): void)|null  $onLeftOut  told the packed place, the cells as they came into the step,
     *     and the packed place of the row that was kept instead, if one was
     * @param  (\Closure(int, int): void)|null  $onCondensed  told the packed place of the row that stays and of one that went into it
     */
    public function __construct(
        public StepFigures $figures,
        public string $folder,
        public References $references,
        public array $parameters = [],
        private ?\Closure $onLeftOut = null,
        private ?\Closure $onCondensed = null,
        public ?DeclaredForms $forms = null,
    ) {}

    /** The same under what the side declares about the values that come into the step. */
    public function under(DeclaredForms $forms): self
    {
        return new self($this->figures, $this->folder, $this->references, $this->parameters, $this->onLeftOut, $this->onCondensed, $forms);
    }

    public function reading(string $column, Kind $kind): Reading
    {
        return ($this->forms ?? DeclaredForms::none())->reading($column, $kind);
    }

    /** @param list<string> $cells */
    public function leaveOut(int $packedPlace, array $cells, ?int $keptInstead = null): void
    {
        $this->figures->leftOut++;
        $this->onLeftOut === null || ($this->onLeftOut)($packedPlace, $cells, $keptInstead);
    }

    public function condense(int $into, int $packedPlace): void
    {
        $this->figures->condensed++;
        $this->onCondensed === null || ($this->onCondensed)($into, $packedPlace);
    }

    /** @throws UnusableStep */
    public function parameter(string $name): string
    {
        return $this->parameters[$name] ??
            throw UnusableStep::because(sprintf('The tally has no parameter "%s". Give it a value before you tally.', Excerpt::of($name)));
    }
}
