<?php

declare(strict_types=1);

namespace NineTally\Core\Shape;

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
     * @param  (\Closure(int, list<string>, int|null): void)|null  $onLeftOut  told the origin, the cells as they came into the step, and the origin of the row that was kept instead, if one was
     * @param  (\Closure(int, int): void)|null  $onMerged  told the origin of the row that stays and of one that went into it
     */
    public function __construct(
        public StepFigures $figures,
        public string $folder,
        public References $references,
        public array $parameters = [],
        private ?\Closure $onLeftOut = null,
        private ?\Closure $onMerged = null,
        public ?DeclaredForms $forms = null,
    ) {}

    /** The same under what the side declares about the values that come into the step. */
    public function under(DeclaredForms $forms): self
    {
        return new self($this->figures, $this->folder, $this->references, $this->parameters, $this->onLeftOut, $this->onMerged, $forms);
    }

    public function reading(string $column, Kind $kind): Reading
    {
        return ($this->forms ?? DeclaredForms::none())->reading($column, $kind);
    }

    /** @param list<string> $cells */
    public function leaveOut(int $origin, array $cells, ?int $keptInstead = null): void
    {
        $this->figures->leftOut++;
        $this->onLeftOut === null || ($this->onLeftOut)($origin, $cells, $keptInstead);
    }

    public function merge(int $into, int $origin): void
    {
        $this->figures->merged++;
        $this->onMerged === null || ($this->onMerged)($into, $origin);
    }

    /** @throws UnusableStep */
    public function parameter(string $name): string
    {
        return $this->parameters[$name] ?? throw UnusableStep::because(sprintf('The tally has no parameter "%s". Give it a value before you tally.', Excerpt::of($name)));
    }
}
