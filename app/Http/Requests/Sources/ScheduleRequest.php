<?php

declare(strict_types=1);

namespace App\Http\Requests\Sources;

use Cron\CronExpression;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Validator;

/** When a dataset, or each of a migration, is drawn and tallied by itself. */
final class ScheduleRequest extends FormRequest
{
    private const MOST_APART = 24 * 3_600;

    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'expression' => ['required_unless:onArrival,true', 'nullable', 'string', 'max:100'],
            'zone' => ['required', 'timezone:all'],
            'onArrival' => ['boolean'],
            'inPlace' => ['boolean'],
            'mostApart' => ['nullable', 'integer', 'between:0,'.self::MOST_APART],
            'isOn' => ['required', 'boolean'],
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['expression.required_unless' => 'Say at which times, or that it is tallied when both sides have arrived.'];
    }

    /** @return list<\Closure(Validator): void> */
    public function after(): array
    {
        return [function (Validator $validator): void {
            $expression = $this->expression();
            if ($expression !== null && (substr_count($expression, ' ') !== 4 || ! CronExpression::isValidExpression($expression))) {
                $validator->errors()->add(
                    'expression',
                    'A time of cron has five fields: minute, hour, day of the month, month, day of the week, such as 0 6 * * 1 for '.
                        'Mondays at six.',
                );
            }
        }];
    }

    public function expression(): ?string
    {
        $expression = preg_replace('/\s+/', ' ', trim($this->string('expression')->toString())) ?? '';

        return $expression === '' ? null : $expression;
    }

    /** @return array{expression: string|null, zone: string, on_arrival: bool, in_place: bool, most_apart: int|null, is_on: bool} */
    public function schedule(): array
    {
        return [
            'expression' => $this->expression(),
            'zone' => $this->string('zone')->toString(),
            'on_arrival' => $this->boolean('onArrival'),
            'in_place' => $this->boolean('inPlace'),
            'most_apart' => $this->filled('mostApart') ? $this->integer('mostApart') : null,
            'is_on' => $this->boolean('isOn'),
        ];
    }
}
