<?php

declare(strict_types=1);

namespace App\Http\Requests\Review;

use App\Models\Decision;
use App\Models\RulingScope;
use App\Models\Tally;
use App\Policies\Act;
use App\Rulings\FindingSet\Filter;
use App\Rulings\NewRuling;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class RuleRequest extends FormRequest
{
    private const MOST_VALUE_PAIRS = 1_000;

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        $tally = $this->route('tally');
        // To answer is to rule: who may not is not asked.
        $members = Rule::exists('memberships', 'user_id')
            ->where('migration_id', $tally instanceof Tally ? $tally->migration->id : 0)
            ->whereIn('role', array_column(Act::Rule->roles(), 'value'));

        return [
            'scope' => ['required', Rule::in(['row', 'cell', 'pattern', 'class', 'selection', 'filter'])],
            'target' => ['required_without:filter', 'string', 'max:40'],
            'filter' => ['required_if:scope,selection,filter', 'array'],
            'filter.sequences' => ['required_if:scope,selection', 'array'],
            'decision' => ['required', Rule::enum(Decision::class)],
            'reason' => ['present', 'required_if:decision,expected,defect', 'nullable', 'string', 'max:2000'],
            'ticket' => ['nullable', 'string', 'max:100'],
            'askedId' => ['required_if:decision,ask', 'nullable', 'integer', $members],
            'holdsUpTo' => ['nullable', 'integer', 'min:1', 'prohibited_unless:scope,pattern', 'prohibits:holdsFor'],
            'holdsFor' => ['nullable', 'array', 'min:1', 'max:'.self::MOST_VALUE_PAIRS, 'prohibited_unless:scope,pattern'],
            'holdsFor.*.source' => ['present', 'nullable', 'string'],
            'holdsFor.*.target' => ['present', 'nullable', 'string'],
            'seenAct' => ['required', 'integer', 'min:0'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'reason.required_if' => 'Say why: the reason stands with the ruling for whoever reads it later.',
            'askedId.required_if' => 'Name the person who is asked.',
        ];
    }

    public function seenAct(): int
    {
        return $this->integer('seenAct');
    }

    public function ruling(): NewRuling
    {
        $scope = RulingScope::from($this->string('scope')->toString());
        $ticket = $this->string('ticket')->trim()->toString();

        return new NewRuling(
            $scope,
            $this->string('target')->toString(),
            $scope->hasMembers() ? Filter::from($this->sent('filter')) : null,
            Decision::from($this->string('decision')->toString()),
            $this->string('reason')->trim()->toString(),
            $ticket === '' ? null : $ticket,
            $this->filled('askedId') ? $this->integer('askedId') : null,
            $this->filled('holdsUpTo') ? $this->integer('holdsUpTo') : null,
            $this->valuePairs(),
        );
    }

    /** @return list<array{source: string, target: string}>|null */
    private function valuePairs(): ?array
    {
        $pairs = [];
        foreach ($this->sent('holdsFor') as $pair) {
            $text = static fn(string $side): string => is_array($pair) && is_string($pair[$side] ?? null) ? $pair[$side] : '';
            $pairs[] = ['source' => $text('source'), 'target' => $text('target')];
        }

        return $pairs === [] ? null : $pairs;
    }

    /** @return array<array-key, mixed> byte for byte as it was sent: a value may be blank or a space, and nothing is trimmed here */
    private function sent(string $name): array
    {
        $sent = json_decode($this->getContent(), true, 8);
        $part = is_array($sent) ? $sent[$name] ?? null : null;

        return is_array($part) ? $part : [];
    }
}
